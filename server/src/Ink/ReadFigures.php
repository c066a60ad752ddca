<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Pages\Skew;
use Plinth\Core\Ink\Picks\PickRefinement;
use Plinth\Core\Ink\Reading\FigureReader;
use Plinth\Core\Ink\Reading\ReadFigure;
use Plinth\Core\Ink\Reading\ReadRoom;
use Plinth\Core\Ink\Reading\TextPicture;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\Recogniser;

/** Reads figures and names: the core makes a picture of the letters alone, a text recogniser reads it, and the core says what was read. */
final readonly class ReadFigures implements AskedFor
{
    /** what the steps take of the whole */
    private const PREPARED = 0.5;
    private const READ_ONCE = 0.75;
    /** A page whose resolution nobody knows is taken for this long, mm: A3, common practice, no source. */
    private const PAGE_MM = 420.0;
    /** so far on the page the end of a dimension line may lie beside the line that marks it, px */
    private const NEAR_PX = 8.0;
    private const COARSE_SIGMA_PX = 1.5;

    public function __construct(
        private Findings $findings,
        private Recogniser $recogniser,
        private EntityManagerInterface $entities,
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
        return $this->findings->basisOf($about);
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $this->findings->work(FindingKind::Figures, $job, $attempt, function (Drawing $drawing, DrawingFit $fit, InkOfPage $ink, callable $onProgress): array {
            $page = $this->entities->find(
                Page::class,
                $drawing->beside($drawing->page())->criteria(),
            ) ?? throw new \LogicException('A drawing has a page.');
            $map = self::level($drawing, $fit->pixelToMm(), $ink);
            $scale = $map->mmPerPixelAt($drawing->box()->centre());
            $paperScale = $scale * (null === $page->resolution() ? max(
                $page->width(),
                $page->height(),
            ) / self::PAGE_MM : $page->resolution() / 25.4);
            $picture = TextPicture::of(
                $ink,
                $drawing->box(),
                $map,
                $paperScale,
                static fn (float $done) => $onProgress(self::PREPARED * $done),
            );
            $level = $this->recogniser->words($picture->level, static fn () => $onProgress(self::PREPARED));
            $turned = $this->recogniser->words($picture->turned(), static fn () => $onProgress(self::READ_ONCE));
            $read = FigureReader::of($picture, $level, $turned);

            return [
                'figures' => array_map(
                    static fn (ReadFigure $f, int $i): array => self::figure($f, $i, $map, $ink, $scale),
                    $read->figures,
                    array_keys($read->figures),
                ),
                'rooms' => array_map(static fn (ReadRoom $r, int $i): array => [
                    'id' => 'r'.$i, 'name' => $r->name, 'areaM2' => $r->areaM2, 'at' => $map->toPixel($r->at)->toArray(), 'box' => self::box($r->box, $map), 'confidence' => $r->confidence,
                ], $read->rooms, array_keys($read->rooms)),
            ];
        });
    }

    /** The fit turned so that the drawing's lines lie level, where nobody has squared it yet. */
    private static function level(Drawing $drawing, PixelToMm $map, InkOfPage $ink): PixelToMm
    {
        $box = $drawing->box();
        $skew = Skew::of($ink->window((int) $box->left, (int) $box->top, (int) $box->width, (int) $box->height));
        if (null === $skew) {
            return $map;
        }
        // The drawing's own x axis as the fit turns it now, modulo a quarter turn.
        $axis = $map->turnRadAt($box->centre()) + deg2rad($skew->degrees);
        $off = $axis - \M_PI_2 * round($axis / \M_PI_2);

        return abs($off) < deg2rad(0.15) ? $map : $map->turned(-$off, new Point(0.0, 0.0));
    }

    /** @return array<string, mixed> */
    private static function figure(ReadFigure $f, int $i, PixelToMm $map, InkOfPage $ink, float $scale): array
    {
        $a = $map->toPixel($f->a);
        $b = $map->toPixel($f->b);
        $across = rad2deg(atan2(-($b->y - $a->y), $b->x - $a->x)) + 90.0;
        $ends = [];
        $sigma = 0.0;
        foreach ([$a, $b] as $end) {
            // The line across the end of the dimension line, to a part of a pixel, moved along it only.
            $line = PickRefinement::lineNear($ink, $end, self::NEAR_PX, $across, 8.0, $scale);
            $length = max(1e-9, $a->distanceTo($b));
            [$ux, $uy] = [($b->x - $a->x) / $length, ($b->y - $a->y) / $length];
            $along = null === $line ? 0.0 : ($line->at->x - $end->x) * $ux + ($line->at->y - $end->y) * $uy;
            $ends[] = [$end->x + $along * $ux, $end->y + $along * $uy];
            $sigma = max($sigma, $line->sigmaPx ?? self::COARSE_SIGMA_PX);
        }

        return [
            'id' => 'f'.$i, 'text' => $f->text, 'mm' => $f->mm, 'stepMm' => $f->stepMm, 'a' => $ends[0], 'b' => $ends[1], 'sigmaPx' => $sigma, 'along' => $f->isLevel
                ? 'x'
                : 'y',
            'spanMm' => $f->spanMm, 'box' => self::box($f->box, $map), 'confidence' => $f->confidence,
        ];
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
