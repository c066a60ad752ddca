<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Geometry\Segment;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Stairs\StairForm;
use Plinth\Core\Stairs\Tread;

/**
 * What runs along the edges of a stair: strips inside its treads, with the line of nosings over them.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 *
 * @phpstan-type Strip array{Ring, HeightPlane, array{float, float}, array{float, float}, float}
 */
final readonly class StairEdge
{
    private const NOTHING_MM = 1.0;
    /** Corners so near to the plane of the others lie in it, mm. */
    private const PLANE_MM = 1e-6;

    public function __construct(private StairForm $form, private float $base)
    {
    }

    /**
     * Along one edge of a tread, inside it, piece by piece, with the line of nosings over each.
     *
     * @return list<array{Ring, HeightPlane, array{float, float}, array{float, float}, float}> with the edge of each, and where it begins
     */
    public function strips(Tread $tread, bool $isLeft, float $broad): array
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
    public static function inside(array $edge, Tread $tread, bool $isLeft, float $broad): array
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
}
