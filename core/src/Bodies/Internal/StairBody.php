<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\StairBuild;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\Tread;

/**
 * What a stair is made of: each tread is solid from its soffit up to where it is trodden on.
 *
 * A slab's soffit runs alongside the line of the inner corners under straight flights, and in level steps where treads wind. Strings stand
 * along both edges and carry treads between them.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final readonly class StairBody
{
    /** Strings: how broad, and how far they reach under and over the line of nosings, mm; common practice, no source. */
    private const STRING_MM = 40.0;
    private const UNDER_MM = 200.0;
    public const OVER_MM = 50.0;
    private const NOTHING_MM = 1.0;

    private StairEdge $edge;

    public function __construct(private StairForm $form, private float $base)
    {
        $this->edge = new StairEdge($form, $base);
    }

    /**
     * In runs, each of which turns less than all the way round: what lies over each other is no one surface.
     *
     * @return list<list<Cell>>
     */
    public function cells(): array
    {
        $runs = [];
        foreach ($this->runs() as $run) {
            $cells = [];
            foreach ($run as $tread) {
                array_push($cells, ...$this->treadCells($tread));
            }
            $runs[] = $cells;
        }

        return $runs;
    }

    /** @return list<Covering> what ends that which stands under it */
    public function coverings(): array
    {
        $coverings = [];
        foreach ($this->form->treads as $tread) {
            foreach ($this->treadCells($tread) as $cell) {
                [$bottom, $top] = $cell->spans[0];
                $coverings[] = new Covering($cell->rings, $bottom, $top);
            }
        }

        return $coverings;
    }

    /** @return list<list<Tread>> */
    private function runs(): array
    {
        $runs = [];
        [$run, $covered] = [[], []];
        foreach ($this->form->treads as $tread) {
            $left = [] === $covered ? [] : Overlay::difference([$tread->ring], $covered);
            if ([] !== $covered && Polygon::area($tread->ring) - self::NOTHING_MM >= Overlay::area($left)) {
                $runs[] = $run;
                [$run, $covered] = [[], []];
            }
            $run[] = $tread;
            $covered[] = $tread->ring;
        }

        return [...$runs, $run];
    }

    /** @return list<Cell> */
    private function treadCells(Tread $tread): array
    {
        $stair = $this->form->stair;
        $top = $this->base + $this->form->level($tread);
        $cells = [];
        $rings = [$tread->ring];
        if (StairBuild::Strings === $stair->build) {
            $between = [];
            foreach ([true, false] as $isLeft) {
                $strips = $this->edge->strips($tread, $isLeft, self::STRING_MM);
                foreach ($strips as [$ring, $line]) {
                    foreach ($this->cutAtFloor($ring, $line->raised(-self::UNDER_MM)) as [$piece, $bottom]) {
                        $cells[] = new Cell([$piece], [[$bottom, $line->raised(self::OVER_MM)]]);
                    }
                }
                $edge = $isLeft ? $tread->left : $tread->right;
                $between[] = [] === $strips ? $edge : StairEdge::inside($edge, $tread, $isLeft, self::STRING_MM);
            }
            $rings = [[...$between[1], ...array_reverse($between[0])]];
        }
        $soffit = match ($stair->build) {
            StairBuild::Solid => HeightPlane::level($this->base),
            StairBuild::Slab => $this->soffit($tread),
            default => HeightPlane::level($top - min($stair->thickness, $this->form->rise)),
        };
        foreach ($rings as $ring) {
            array_push($cells, ...$this->overFloor($ring, $soffit, $top, $this->nosing($tread)));
        }

        return $cells;
    }

    /** Under a tread of a slab. */
    private function soffit(Tread $tread): HeightPlane
    {
        $stair = $this->form->stair;
        $level = $this->base + $this->form->level($tread);
        if ($tread->isLanding) {
            return HeightPlane::level($level - $stair->thickness);
        }
        if (!$tread->isStraight) {
            return HeightPlane::level($level - $this->form->rise - $stair->thickness);
        }
        [[$ax, $ay], [$bx, $by]] = [self::middle($tread->below()), self::middle($tread->above())];
        $going = hypot($bx - $ax, $by - $ay);
        $slope = $this->form->rise / $going;

        // Through the inner corners, and so far under them that the slab is as thick as it is said to be.
        return HeightPlane::through(
            $bx,
            $by,
            $level - $stair->thickness * hypot(1.0, $slope),
            $slope * ($bx - $ax) / $going,
            $slope * ($by - $ay) / $going,
        );
    }

    /**
     * Where a tread is reached over by the next one.
     *
     * @return array{array{float, float}, array{float, float}}|null a line before that, from its left end to its right
     */
    private function nosing(Tread $tread): ?array
    {
        $stair = $this->form->stair;
        $next = $this->form->treads[$tread->number] ?? null;
        if ($stair->nosing <= 0.0 || !$tread->isStraight || !$next instanceof Tread || $stair->nosing >= $tread->going) {
            return null;
        }
        [[$lx, $ly], [$rx, $ry]] = $tread->above();
        $width = hypot($rx - $lx, $ry - $ly);
        [$nx, $ny] = [($ry - $ly) / $width * $stair->nosing, -($rx - $lx) / $width * $stair->nosing];
        $below = self::middle($tread->below());
        // Back towards the riser below.
        $side = ($below[0] - $lx) * $nx + ($below[1] - $ly) * $ny > 0.0 ? 1.0 : -1.0;

        return [[$lx + $side * $nx, $ly + $side * $ny], [$rx + $side * $nx, $ry + $side * $ny]];
    }

    /**
     * @param Ring $ring
     * @param array{array{float, float}, array{float, float}}|null $nosing
     *
     * @return list<Cell> nothing reaches into the floor
     */
    private function overFloor(array $ring, HeightPlane $soffit, float $top, ?array $nosing): array
    {
        $parts = [[$ring, false]];
        if (null !== $nosing) {
            [$p, $q] = $nosing;
            [$left, $right] = Cut::line($ring, $p, [$q[0] - $p[0], $q[1] - $p[1]]);
            $parts = [
                ...array_map(static fn (array $r): array => [$r, true], $left),
                ...array_map(static fn (array $r): array => [$r, false], $right),
            ];
        }
        $plate = min($this->form->stair->thickness, 40.0, $this->form->rise / 2.0);
        $cells = [];
        foreach ($parts as [$part, $isUnderNosing]) {
            $over = $top + $this->form->rise;
            $more = $isUnderNosing ? [[HeightPlane::level($over - $plate), HeightPlane::level($over)]] : [];
            foreach ($this->cutAtFloor($part, $soffit) as [$piece, $bottom]) {
                $cells[] = new Cell([$piece], [[$bottom, HeightPlane::level($top)], ...$more]);
            }
        }

        return $cells;
    }

    /**
     * @param Ring $ring
     *
     * @return list<array{Ring, HeightPlane}> parts of it over which a soffit lies over the floor, and those that stand on that
     */
    private function cutAtFloor(array $ring, HeightPlane $soffit): array
    {
        $floor = HeightPlane::level($this->base);
        if ($soffit->isLevel()) {
            return [[$ring, $soffit->z < $this->base ? $floor : $soffit]];
        }
        $steep = $soffit->dx ** 2 + $soffit->dy ** 2;
        $over = $soffit->at(...$ring[0]) - $this->base;
        $on = [$ring[0][0] - $over * $soffit->dx / $steep, $ring[0][1] - $over * $soffit->dy / $steep];
        $parts = array_merge(...Cut::line($ring, $on, [-$soffit->dy, $soffit->dx]));

        return array_map(fn (array $p): array => [$p, $soffit->at(...Polygon::labelPoint($p)) < $this->base ? $floor : $soffit], $parts);
    }

    /**
     * @param array{array{float, float}, array{float, float}} $riser
     *
     * @return array{float, float}
     */
    private static function middle(array $riser): array
    {
        return [($riser[0][0] + $riser[1][0]) / 2.0, ($riser[0][1] + $riser[1][1]) / 2.0];
    }
}
