<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Core\Ink\Reading\DrawnWords;
use Plinth\Core\Ink\Reading\PageFigure;
use Plinth\Core\Ink\Reading\PageFigures;
use Plinth\Core\Ink\Reading\ReadRoom;
use Plinth\Core\Ink\Reading\ReadScaleBar;
use Plinth\Core\Ink\Reading\RoomNames;
use Plinth\Core\Ink\Reading\TextPicture;
use Plinth\Core\Ink\Reading\Title;
use Plinth\Core\Ink\Reading\WrittenScale;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Fit\FirstGuess;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Plinth\Server\Source\LinesOfPages;
use Plinth\Server\Source\Making\FindWayUp;
use Plinth\Server\Source\Making\MadeOfPage;
use Plinth\Server\Source\Making\TitlesTold;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\Recogniser;

/**
 * Reads figures, of which the core needs nothing but the ink, and names: the core makes a picture of the letters alone, a text recogniser
 * reads it, unless the page says its words itself, and the core says which are names.
 */
final readonly class ReadFigures implements AskedFor
{
    /** what the steps take of the whole */
    private const FIGURES = 0.4;
    private const PREPARED = 0.6;
    private const READ_ONCE = 0.8;
    /** how sure a scale bar with its labels is: of some sixty on simulated sheets none was read wrong */
    private const BAR = 0.97;

    public function __construct(
        private Findings $findings,
        private Recogniser $recogniser,
        private LinesOfPages $lines,
        private EntityManagerInterface $entities,
        private MadeOfPage $made,
        private Jobs $jobs,
    ) {
    }

    public static function name(): string
    {
        return 'read-figures';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        return $this->findings->basisOf($about, FindingKind::Figures);
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $read = null;
        $titles = [];
        $this->findings->work(FindingKind::Figures, $job, $attempt, function (Drawing $drawing, DrawingFit $fit, InkOfPage $ink, callable $onProgress) use (&$read, &$titles): array {
            $page = $this->entities->find(
                Page::class,
                $drawing->beside($drawing->page())->criteria(),
            ) ?? throw new \LogicException('A drawing has a page.');
            $read = PageFigures::of($ink, $drawing->box(), static fn (float $done) => $onProgress(self::FIGURES * $done));
            $goesOn = static fn () => $onProgress(self::FIGURES);
            // Where the figures tell the size and the way up, they tell it better than a guess.
            $map = ($fit->isGuess() ? $read->upright() : null) ?? self::level($drawing, $fit->pixelToMm(), $ink, $goesOn);
            $scale = $map->mmPerPixelAt($drawing->box()->centre());
            $paperScale = $scale / FirstGuess::paperMmPerPixel($page);
            $picture = TextPicture::of(
                $ink,
                $drawing->box(),
                $map,
                $paperScale,
                static fn (float $done) => $onProgress(self::FIGURES + (self::PREPARED - self::FIGURES) * $done),
            );
            // What a page says itself need not be recognised.
            $said = $this->lines->words($drawing);
            [$level, $turned] = [] !== $said ? DrawnWords::on($picture, $map, $said) : [
                $this->recogniser->words($picture->level, static fn () => $onProgress(self::PREPARED)),
                $this->recogniser->words($picture->turned(), static fn () => $onProgress(self::READ_ONCE)),
            ];
            $rooms = RoomNames::of($picture, $level, $turned);
            $titles = array_map(static fn (Title $title): Title => $title->onPage(static function (array $box) use ($picture, $map): array {
                [$a, $b] = [$picture->ofLevel($box[0], $box[3]), $picture->ofLevel($box[2], $box[1])];

                return self::box([$a->x, $a->y, $b->x, $b->y], $map);
            }), Title::in($level));
            $sure = $read->sure();

            return [
                'drawing' => [[
                    'photograph' => $read->isPhotographed,
                    'statedScale' => WrittenScale::in([...$level, ...$turned]),
                    'map' => $read->isSure ? $read->map?->matrix() : null,
                    'sigmaPx' => $read->sigmaPx,
                ]],
                'figures' => [...self::scaleBar($read->scaleBar), ...array_map(static fn (PageFigure $f, int $i): array => [
                    'id' => 'f'.$i, 'text' => $f->text, 'mm' => $f->mm, 'stepMm' => $f->stepMm, 'a' => $f->a->toArray(), 'b' => $f->b->toArray(), 'sigmaPx' => $f->sigmaPx, 'box' => $f->box, 'confidence' => $f->confidence, 'isBar' => false,
                ], $sure, array_keys($sure))],
                'rooms' => array_map(static fn (ReadRoom $r, int $i): array => [
                    'id' => 'r'.$i, 'name' => $r->name, 'areaM2' => $r->areaM2, 'at' => $map->toPixel($r->at)->toArray(), 'box' => self::box($r->box, $map), 'confidence' => $r->confidence,
                ], $rooms, array_keys($rooms)),
            ];
        });
        if ($read instanceof PageFigures) {
            $this->keepWayUp($job->about, $attempt, $read->turns, $titles);
        }
    }

    /**
     * Which way up a page of one drawing lies, and its titles: by its figures, or where they do not say so, by all that is written on it.
     *
     * @param list<Title> $titles
     */
    private function keepWayUp(RowId $about, Attempt $attempt, ?int $turns, array $titles): void
    {
        $drawing = $this->entities->find(Drawing::class, $about->criteria());
        $page = null === $drawing ? null : $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());
        if (null === $page || $page->isWayUpKnown() || !$drawing->isAllOf($page)) {
            return;
        }
        if (null === $turns) {
            $this->jobs->ask(FindWayUp::class, $page->key(), $page->pictures(), lane: Lane::Idle);
        } else {
            $found = ['wayUp' => ['turns' => $turns, 'sure' => true], 'titles' => TitlesTold::of($titles)];
            $attempt->write(fn () => $this->made->keep($page->key(), $page->pictures(), $found));
        }
    }

    /** @return list<array<string, mixed>> a scale bar is a figure with two ends like any other */
    private static function scaleBar(?ReadScaleBar $bar): array
    {
        return null === $bar ? [] : [[
            'id' => 'bar', 'text' => $bar->text, 'mm' => $bar->mm, 'stepMm' => 1.0, 'a' => $bar->a->toArray(), 'b' => $bar->b->toArray(),
            'sigmaPx' => $bar->sigmaPx, 'box' => $bar->box, 'confidence' => self::BAR, 'isBar' => true,
        ]];
    }

    /**
     * The fit turned so that the drawing's lines lie level, where nobody has squared it yet.
     *
     * @param callable(): void $goesOn
     */
    private static function level(Drawing $drawing, PixelToMm $map, InkOfPage $ink, callable $goesOn): PixelToMm
    {
        $box = $drawing->box();
        $skew = Skew::of($ink->window((int) $box->left, (int) $box->top, (int) $box->width, (int) $box->height), $goesOn);
        if (null === $skew) {
            return $map;
        }
        // The drawing's own x axis as the fit turns it now, modulo a quarter turn.
        $axis = $map->turnRadAt($box->centre()) + deg2rad($skew->degrees);
        $off = $axis - \M_PI_2 * round($axis / \M_PI_2);

        return abs($off) < deg2rad(0.15) ? $map : $map->turned(-$off, new Point(0.0, 0.0));
    }

    /**
     * @param array{float, float, float, float} $mm left, bottom, right, top
     *
     * @return array{float, float, float, float} left, top, right, bottom on the page, px
     */
    private static function box(array $mm, PixelToMm $map): array
    {
        $xs = [];
        $ys = [];
        foreach ([[0, 1], [2, 1], [2, 3], [0, 3]] as [$i, $k]) {
            $p = $map->toPixel(new Point($mm[$i], $mm[$k]));
            $xs[] = $p->x;
            $ys[] = $p->y;
        }

        return [min($xs), min($ys), max($xs), max($ys)];
    }
}
