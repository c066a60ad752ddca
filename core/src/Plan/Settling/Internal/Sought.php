<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\Line;

/**
 * A figure between two walls of one family, as a difference of places along an axis of its frame.
 *
 * @internal
 */
final readonly class Sought
{
    /**
     * @param int $axis of the family's frame, across both walls
     * @param int $p a node of the first wall
     * @param int $q a node of the second
     * @param float $between by how much the second wall's centre line shall lie further along the axis, mm
     * @param float $way 1 where the second face lies further along the axis as traced, else −1
     * @param float $off how far the tracing is from the figure, mm
     */
    private function __construct(
        public Figure $figure,
        public int $family,
        public int $axis,
        public int $p,
        public int $q,
        public float $between,
        public float $way,
        public float $off,
    ) {
    }

    public static function of(Figure $figure, Traced $traced, Ties $ties, Family $family): self
    {
        $f = $ties->familyOf[$figure->a];
        $axis = $family->normals[$figure->a];
        [$nx, $ny] = $family->axis($axis);
        $place = static function (string $wall) use ($traced, $nx, $ny): float {
            [[$ax, $ay], [$bx, $by]] = array_map(static fn (int $node): array => $traced->places[$node], $traced->straight[$wall]);

            return (($ax + $bx) * $nx + ($ay + $by) * $ny) / 2.0;
        };
        $shift = self::shift($traced, $figure->b, $figure->bSide, $nx, $ny) - self::shift($traced, $figure->a, $figure->aSide, $nx, $ny);
        $apart = $place($figure->b) - $place($figure->a) + $shift;
        $way = $apart < 0.0 ? -1.0 : 1.0;
        // The node that stands in the walls' own frame makes the simpler condition.
        $node = static fn (string $wall): int => $ties->frames[$traced->straight[$wall][0]] === $f
            ? $traced->straight[$wall][0]
            : $traced->straight[$wall][1];

        return new self(
            $figure,
            $f,
            $axis,
            $node($figure->a),
            $node($figure->b),
            $way * $figure->mm - $shift,
            $way,
            abs($way * $figure->mm - $apart),
        );
    }

    /** How far a line of a wall lies beyond its centre line along a direction, mm. */
    public static function shift(Traced $traced, string $wall, Line $side, float $nx, float $ny): float
    {
        [$dx, $dy] = $traced->run($wall);
        $left = $dx * $ny - $dy * $nx > 0.0 ? 1.0 : -1.0;

        return match ($side) {
            Line::Centre => 0.0,
            Line::Left => $left,
            Line::Right => -$left,
        } * $traced->thicknesses[$wall] / 2.0;
    }
}
