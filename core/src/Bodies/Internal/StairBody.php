<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;
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
    private const OVER_MM = 50.0;
    /**
     * Rails: how broad, and posts along them; common practice, no source. That no sphere of 100 mm passes: Approved Document K (memory).
     */
    private const RAIL_MM = self::STRING_MM;
    private const POST_MM = 20.0;
    private const CLEAR_MM = 95.0;
    /** One that lies lower would lie in the treads. */
    private const LOWEST_RAIL_MM = 150.0;
    private const NOTHING_MM = 1.0;
    /** Corners so near to the plane of the others lie in it, mm. */
    private const PLANE_MM = 1e-6;
    /** A post that would end so near to a corner of the edge ends there, mm. */
    private const JOINT_MM = 2.0;

    public function __construct(private StairForm $form, private float $base)
    {
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

    /** @return list<Cell> rails along its edges, as one runs up beside them */
    public function rails(): array
    {
        $cells = [];
        if ($this->form->stair->railHeight < self::LOWEST_RAIL_MM) {
            return [];
        }
        foreach ([[$this->form->stair->leftRail, true], [$this->form->stair->rightRail, false]] as [$has, $isLeft]) {
            foreach ($has ? $this->form->treads : [] as $tread) {
                array_push($cells, ...$this->railCells($tread, $isLeft));
            }
        }

        return $cells;
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
                $strips = $this->strips($tread, $isLeft, self::STRING_MM);
                foreach ($strips as [$ring, $line]) {
                    foreach ($this->cutAtFloor($ring, $line->raised(-self::UNDER_MM)) as [$piece, $bottom]) {
                        $cells[] = new Cell([$piece], [[$bottom, $line->raised(self::OVER_MM)]]);
                    }
                }
                $edge = $isLeft ? $tread->left : $tread->right;
                $between[] = [] === $strips ? $edge : self::inside($edge, $tread, $isLeft, self::STRING_MM);
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

    /** @return list<Cell> a handrail, and posts under it that stand on the tread */
    private function railCells(Tread $tread, bool $isLeft): array
    {
        $cells = [];
        $height = $this->form->stair->railHeight;
        $level = HeightPlane::level($this->base + $this->form->level($tread));
        $strips = $this->strips($tread, $isLeft, self::RAIL_MM);
        [, , $p, $q, $begins] = $strips[\count($strips) - 1] ?? [[], null, [0.0, 0.0], [0.0, 0.0], 0.0];
        $total = $begins + hypot($q[0] - $p[0], $q[1] - $p[1]);
        $count = (int) max(1.0, ceil($total / (self::CLEAR_MM + self::POST_MM)));
        $gap = $total / $count - self::POST_MM;
        foreach ($strips as [$ring, $line, [$ax, $ay], [$bx, $by], $begins]) {
            $length = hypot($bx - $ax, $by - $ay);
            $rail = [$line->raised($height - self::RAIL_MM), $line->raised($height)];
            $post = [StairBuild::Strings === $this->form->stair->build ? $line->raised(self::OVER_MM) : $level, $rail[1]];
            $rest = [$ring];
            for ($k = 0; $k <= 2 * $count; ++$k) {
                // Half a gap, a post, a gap, a post … and half a gap, along all of the edge.
                $ends = $k === 2 * $count ? $total : $gap / 2.0 + intdiv($k + 1, 2) * self::POST_MM + intdiv($k, 2) * $gap;
                if ($ends <= $begins + self::JOINT_MM) {
                    continue;
                }
                $part = ($ends - $begins) / $length;
                $isLast = $ends >= $begins + $length - self::JOINT_MM;
                $on = [$ax + $part * ($bx - $ax), $ay + $part * ($by - $ay)];
                [$pieces, $after] = [$isLast ? $rest : [], []];
                foreach ($isLast ? [] : $rest as $piece) {
                    [$before, $behind] = Cut::line($piece, $on, [-($by - $ay), $bx - $ax]);
                    array_push($pieces, ...$before);
                    array_push($after, ...$behind);
                }
                foreach ($pieces as $piece) {
                    $cells[] = new Cell([$piece], [1 === $k % 2 ? $post : $rail]);
                }
                $rest = $after;
                if ($isLast) {
                    break;
                }
            }
        }

        return $cells;
    }

    /**
     * Along one edge of a tread, inside it, piece by piece, with the line of nosings over each.
     *
     * @return list<array{Ring, HeightPlane, array{float, float}, array{float, float}, float}> with the edge of each, and where it begins
     */
    private function strips(Tread $tread, bool $isLeft, float $broad): array
    {
        $edge = $isLeft ? $tread->left : $tread->right;
        $total = 0.0;
        foreach (\array_slice($edge, 1) as $i => $q) {
            $total += hypot($q[0] - $edge[$i][0], $q[1] - $edge[$i][1]);
        }
        if ($total < 2.0 * $broad) {
            return [];
        }
        $inner = self::inside($edge, $tread, $isLeft, $broad);
        $strips = [];
        $along = 0.0;
        $low = $this->base + $this->form->level($tread);
        $slope = $tread->isLanding ? 0.0 : $this->form->rise / $total;
        foreach (\array_slice($edge, 1) as $i => $q) {
            $p = $edge[$i];
            $length = hypot($q[0] - $p[0], $q[1] - $p[1]);
            if ($length < self::NOTHING_MM) {
                continue;
            }
            [$a, $b] = [$inner[$i], $inner[$i + 1]];
            [$from, $to] = [$low + $slope * $along, $low + $slope * ($along + $length)];
            $whole = HeightPlane::of([[...$p, $from], [...$q, $to], [...$a, $from]]);
            // As high across its whole breadth where it begins and where it ends: what goes on there meets it.
            $parts = abs($whole->at(...$b) - $to) < self::PLANE_MM
                ? [[[$p, $q, $b, $a], $whole]]
                : [[[$p, $q, $b], HeightPlane::of([[...$p, $from], [...$q, $to], [...$b, $to]])],
                    [[$p, $b, $a], HeightPlane::of([[...$p, $from], [...$b, $to], [...$a, $from]])]];
            foreach ($parts as [$ring, $line]) {
                $strips[] = [Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring, $line, $p, $q, $along];
            }
            $along += $length;
        }

        return $strips;
    }

    /**
     * An edge moved inwards: its ends along the risers, its corners where the moved pieces meet.
     *
     * @param non-empty-list<array{float, float}> $edge
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function inside(array $edge, Tread $tread, bool $isLeft, float $broad): array
    {
        $last = \count($edge) - 1;
        $side = $isLeft ? $broad : -$broad;
        $moved = [];
        for ($i = 0; $i < $last; ++$i) {
            [[$ax, $ay], [$bx, $by]] = [$edge[$i], $edge[$i + 1]];
            $length = max(1e-9, hypot($bx - $ax, $by - $ay));
            [$nx, $ny] = [$side * ($by - $ay) / $length, -$side * ($bx - $ax) / $length];
            $moved[] = [[$ax + $nx, $ay + $ny], [$bx + $nx, $by + $ny]];
        }
        $inner = [self::meeting($tread->below(), $moved[0], Tolerance::PARALLEL_SINE)];
        for ($i = 1; $i < $last; ++$i) {
            $inner[] = self::meeting($moved[$i - 1], $moved[$i], 1e-6);
        }
        $inner[] = self::meeting($tread->above(), $moved[$last - 1], Tolerance::PARALLEL_SINE);

        return $inner;
    }

    /**
     * @param array{array{float, float}, array{float, float}} $one
     * @param array{array{float, float}, array{float, float}} $other
     *
     * @return array{float, float} where the lines of two pieces meet; where the other begins if they run alongside
     */
    private static function meeting(array $one, array $other, float $leastSine): array
    {
        [[$ax, $ay], [$bx, $by]] = $one;
        $meets = Segment::meeting($one[0], $one[1], $other[0], $other[1], $leastSine);

        return null === $meets ? $other[0] : [$ax + $meets[0] * ($bx - $ax), $ay + $meets[0] * ($by - $ay)];
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
