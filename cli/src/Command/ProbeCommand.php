<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Json;
use Plinth\Cli\Picture\Picture;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Walls\WallProbe;
use Plinth\Core\Ink\Walls\WallUnder;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('probe', 'The drawn wall along a stroke, or under a point', help: <<<'TEXT'
    Reads {"pixelToMm": [[3 × 3]], "from": [x, y], "to": [x, y]}, a stroke along a wall in pixels, or {"pixelToMm", "at": [x, y]}.
    Answers {"wall": {"from", "to", "thickness", "plusMinus", "offPlusMinus"}} in mm: ends of the centre line, beside those of the
    stroke or as far as the ink shows the wall; ± two standard deviations, of the thickness and of the centre line across it. `wall`
    is null where the ink shows none.
    TEXT)]
final class ProbeCommand extends PictureCommand
{
    /** Along a stroke it is looked for a wall here, until one is found. */
    private const PARTS = [0.5, 0.35, 0.65, 0.2, 0.8];

    protected function configure(): void
    {
        parent::configure();
        Json::option($this, 'the map from pixels to millimetres, and the stroke');
    }

    protected function answer(Picture $picture, InputInterface $input): array
    {
        $document = Json::document($input)->object(['pixelToMm', 'from', 'to', 'at']);
        $map = self::map($document);
        $window = $picture->page;
        if (null !== ($at = $document->optional('at'))) {
            $wall = WallUnder::at($window, $map, self::place($at, $map));
        } else {
            [$from, $to] = [self::place($document->get('from'), $map), self::place($document->get('to'), $map)];
            $wall = null;
            foreach (self::PARTS as $part) {
                $under = WallUnder::at(
                    $window,
                    $map,
                    new Point($from->x + $part * ($to->x - $from->x), $from->y + $part * ($to->y - $from->y)),
                );
                $wall ??= null === $under ? null : WallProbe::along($window, $map, $from, $to, $under->thickness);
            }
        }

        return ['wall' => null === $wall ? null : [
            'from' => $wall->from->toArray(), 'to' => $wall->to->toArray(), 'thickness' => $wall->thickness,
            'plusMinus' => 2.0 * $wall->thicknessSigma, 'offPlusMinus' => 2.0 * $wall->centreSigma,
        ]];
    }

    private static function place(JsonValue $pixel, PixelToMm $map): Point
    {
        return $map->toMm(new PixelPoint(...$pixel->pair()));
    }
}
