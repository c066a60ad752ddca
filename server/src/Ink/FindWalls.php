<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Plinth\Core\Exchange\ExactLine;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Ink\Walls\DrawnWalls;
use Plinth\Core\Ink\Walls\ProposedColumn;
use Plinth\Core\Ink\Walls\ProposedOpening;
use Plinth\Core\Ink\Walls\ProposedWall;
use Plinth\Core\Ink\Walls\WallProposals;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Job\AskedFor;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Plinth\Server\Source\LinesOfPages;

/**
 * Finds the walls that a drawing shows.
 *
 * @phpstan-import-type Line from ExactLine
 */
final readonly class FindWalls implements AskedFor
{
    public function __construct(private Findings $findings, private LinesOfPages $lines)
    {
    }

    public static function name(): string
    {
        return 'find-walls';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function basis(RowId $about): string
    {
        $this->findings->refuseWithoutStorey($about);

        return $this->findings->basisOf($about, FindingKind::Walls);
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $this->findings->work(FindingKind::Walls, $job, $attempt, function (Drawing $drawing, DrawingFit $fit, InkOfPage $ink, callable $onProgress): array {
            $found = WallProposals::in($ink, $drawing->box(), $fit->pixelToMm(), $onProgress)->worthALook();
            // Where a program has drawn the page, its own lines say where walls are.
            $drawn = DrawnWalls::in($this->inMm($drawing, $fit));
            $told = $drawn->agreeWith($found->walls) ? $drawn->beside($found->walls, $found->openings) : $found;
            [$walls, $openings] = [$told->walls, $told->openings];
            $pixels = static fn (ProposedWall $w): array => [
                ...$fit->pixelToMm()->toPixel($w->from)->toArray(),
                ...$fit->pixelToMm()->toPixel($w->to)->toArray(),
            ];

            return [
                'walls' => array_map(static fn (ProposedWall $w, int $i): array => [
                    'id' => 'w'.$i, 'from' => $w->from->toArray(), 'to' => $w->to->toArray(), 'rise' => $w->rise, 'thickness' => $w->thickness, 'plusMinusMm' => 2.0 * $w->thicknessSigma, 'offPlusMinusMm' => 2.0 * $w->centreSigma,
                    'confidence' => $w->confidence, 'sure' => $w->isSure(), 'filling' => $w->filling, 'onPage' => $pixels($w),
                ], $walls, array_keys($walls)),
                'openings' => array_map(static fn (ProposedOpening $o, int $i): array => [
                    'id' => 'o'.$i, 'wall' => 'w'.$o->wall, 'kind' => $o->kind->value, 'offset' => $o->offset, 'width' => $o->width, 'plusMinusMm' => 2.0 * $o->sigma, 'confidence' => $o->confidence, 'sure' => $o->isSure(), 'leafAt' => $o->leafAt, 'leafSide' => $o->leafSide,
                ], $openings, array_keys($openings)),
                'columns' => array_map(static fn (ProposedColumn $c, int $i): array => [
                    'id' => 'c'.$i, 'x' => $c->centre->x, 'y' => $c->centre->y, 'width' => $c->width, 'depth' => $c->depth, 'confidence' => $c->confidence,
                ], $found->columns, array_keys($found->columns)),
            ];
        });
    }

    /** @return list<Line> */
    private function inMm(Drawing $drawing, DrawingFit $fit): array
    {
        $map = $fit->pixelToMm();

        return array_map(
            static fn (array $l): array => ExactLine::mapped($l, static fn (float $x, float $y): array => $map->toMm(new PixelPoint($x, $y))->toArray()),
            $this->lines->of($drawing),
        );
    }
}
