<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\Picture\Picture;
use Plinth\Cli\Picture\Pictures;
use Plinth\Cli\Picture\Words;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Core\Ink\Reading\ReadRoom;
use Plinth\Core\Ink\Reading\ReadWord;
use Plinth\Core\Ink\Reading\RoomNames;
use Plinth\Core\Ink\Reading\TextPicture;
use Plinth\Core\Ink\Reading\WrittenScale;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('read', 'Figures and room names written on a drawing', help: <<<'TEXT'
    Reads {"pixelToMm": [[3 × 3]]}, as `fit` answers it, or {"pixelToMm": null} where nothing is known of the drawing yet. Answers:
      turns      quarter turns, counter-clockwise as seen, that make the figures readable; null where that is not sure
      figures    text, mm, stepMm (of its last place), a and b (ends of the dimension line, px), confidence
      pixelToMm  the map on which the figures agree, as they are read upright; null where too few do, or not along both axes
      scaleBar   mm, and its ends a and b (px); null where none is read
    and where a map is given or the figures tell one, so that letters are known to be such (else none, and null):
      rooms      name, areaM2, at (px), confidence
      statedScale  one to so many, as the drawing says of itself; null where it says nothing
    TEXT)]
final class ReadCommand extends PictureCommand
{
    public function __construct(Pictures $pictures, private readonly Words $words)
    {
        parent::__construct($pictures);
    }

    protected function configure(): void
    {
        parent::configure();
        Json::option($this, 'the map from pixels to millimetres, or null');
    }

    protected function answer(Picture $picture, InputInterface $input): array
    {
        $document = Json::document($input)->object(['pixelToMm']);
        $given = null === $document->optional('pixelToMm') ? null : self::map($document);
        $read = PageFigures::of($picture->page, $picture->box(), static function (float $done): void {});
        $map = $given ?? $read->upright();
        $words = null === $map ? null : $this->words($picture, $map);

        return [
            'turns' => $read->turns,
            'figures' => array_map(static fn (PageFigure $f): array => [
                'text' => $f->text, 'mm' => $f->mm, 'stepMm' => $f->stepMm, 'a' => $f->a->toArray(), 'b' => $f->b->toArray(),
                'confidence' => $f->confidence,
            ], $read->sure()),
            'pixelToMm' => $read->upright()?->rows(),
            'rooms' => null === $words ? [] : array_map(static fn (ReadRoom $r): array => [
                'name' => $r->name, 'areaM2' => $r->areaM2, 'at' => $map->toPixel($r->at)->toArray(), 'confidence' => $r->confidence,
            ], RoomNames::of(...$words)),
            'scaleBar' => null === $read->scaleBar ? null : [
                'mm' => $read->scaleBar->mm, 'a' => $read->scaleBar->a->toArray(), 'b' => $read->scaleBar->b->toArray(),
            ],
            'statedScale' => null === $words ? null : WrittenScale::in([...$words[1], ...$words[2]]),
        ];
    }

    /** @return array{TextPicture, list<ReadWord>, list<ReadWord>} a picture of the letters, and what they say level and upward */
    private function words(Picture $picture, PixelToMm $map): array
    {
        $box = $picture->box();
        $paperScale = $map->mmPerPixelAt($box->centre()) * max($box->width, $box->height) / TextPicture::USUAL_PAPER_MM;
        $text = TextPicture::of($picture->page, $box, $map, $paperScale, static function (float $done): void {});

        return [$text, $this->words->in($text->level), $this->words->in($text->turned())];
    }
}
