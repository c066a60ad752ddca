<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Dxf\Internal;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Plan\Model\Wall;

/**
 * Rings whose arcs came apart into chords, with their arcs as arcs: chords one after another whose ends lie on one circle are one edge.
 *
 * @internal
 *
 * @phpstan-import-type Corner from DxfFile
 */
final readonly class Bulges
{
    /** So near to a circle a corner lies on it, mm. */
    private const ON_MM = 0.01;
    /** A chord that stands for its piece of an arc lies no further off it, mm: {@see Wall::CHORD_MM} and a little for the outer face. */
    private const CHORD_MM = 1.5 * Wall::CHORD_MM;

    /** @param list<array{array{float, float}, float}> $circles centre and radius, mm */
    public function __construct(private array $circles)
    {
    }

    /** @param float $angle rad that an edge turns by, counter-clockwise positive */
    public static function bulge(float $angle): float
    {
        return tan($angle / 4.0);
    }

    /** @return list<array{array{float, float}, float}> the circles of a curved wall's faces and of what is drawn along its middle */
    public static function beside(Arc $arc, float $thickness): array
    {
        $centre = $arc->centre->toArray();

        return [[$centre, $arc->radius - $thickness / 2.0], [$centre, $arc->radius], [$centre, $arc->radius + $thickness / 2.0]];
    }

    /**
     * @param list<array{float, float}> $points
     *
     * @return list<Corner>
     */
    public function of(array $points, bool $isClosed = true): array
    {
        $count = \count($points);
        $edges = $isClosed ? $count : $count - 1;
        $on = [];
        for ($i = 0; $i < $edges; ++$i) {
            $on[$i] = $this->circle($points[$i], $points[($i + 1) % $count]);
        }
        // Begin where an arc does not go on over the ring's seam.
        $first = 0;
        for ($i = 0; $isClosed && $i < $count; ++$i) {
            if (null === $on[$i] || $on[$i] !== $on[($i + $count - 1) % $count]) {
                $first = $i;
                break;
            }
        }
        $corners = [];
        $angle = 0.0;
        for ($k = 0; $k < $edges; ++$k) {
            $i = ($first + $k) % $count;
            $circle = $on[$i];
            $turn = null === $circle ? 0.0 : $this->turn($circle, $points[$i], $points[($i + 1) % $count]);
            $begun = null !== $circle && $k > 0 && $circle === $on[($first + $k - 1) % $count] && abs($angle) < \M_PI
                ? array_pop($corners)
                : null;
            $angle = null === $begun ? $turn : $angle + $turn;
            [$x, $y] = $begun ?? $points[$i];
            $corners[] = [$x, $y, self::bulge($angle)];
        }

        return $isClosed || 0 === $count ? $corners : [...$corners, [$points[$count - 1][0], $points[$count - 1][1], 0.0]];
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function circle(array $a, array $b): ?int
    {
        foreach ($this->circles as $n => [[$x, $y], $radius]) {
            if (abs(hypot($a[0] - $x, $a[1] - $y) - $radius) < self::ON_MM && abs(hypot($b[0] - $x, $b[1] - $y) - $radius) < self::ON_MM) {
                // Where it lies further off its arc than chords do, it was meant to be straight.
                $chord = hypot($b[0] - $a[0], $b[1] - $a[1]);
                $off = $radius - sqrt(max(0.0, $radius ** 2 - $chord ** 2 / 4.0));

                return $off < self::CHORD_MM ? $n : null;
            }
        }

        return null;
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     */
    private function turn(int $circle, array $a, array $b): float
    {
        [[$x, $y]] = $this->circles[$circle];
        $angle = atan2($b[1] - $y, $b[0] - $x) - atan2($a[1] - $y, $a[0] - $x);

        return $angle > \M_PI ? $angle - 2.0 * \M_PI : ($angle <= -\M_PI ? $angle + 2.0 * \M_PI : $angle);
    }
}
