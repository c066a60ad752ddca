<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Editing;

use Plinth\Core\Geometry\Point;
use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\Wall;

/** Brings an opening that was found in a wall of the ink onto the wall that is traced there already. */
final class OpeningTraced
{
    /** so far outside a traced wall's body a jamb may lie, mm */
    private const BESIDE_MM = 20.0;

    /**
     * The opening as it lies in the traced wall, its leaf at the same jamb and on the same side of the building whichever way that wall
     * runs.
     *
     * @param Wall $found the wall that it was found in, with that wall's own `offset`
     * @param list<Wall> $there
     * @param list<Opening> $openings theirs
     *
     * @return Opening|null nothing where no straight traced wall holds both jambs, or an opening is there already
     */
    public static function in(Opening $opening, Wall $found, array $there, array $openings): ?Opening
    {
        $a = $found->at($opening->offset);
        $b = $found->at($opening->offset + $opening->width);
        foreach ($there as $wall) {
            $length = $wall->length();
            if (null !== $wall->arc() || $length < Tolerance::ROUND_OFF_MM) {
                continue;
            }
            [$ux, $uy] = [($wall->to->x - $wall->from->x) / $length, ($wall->to->y - $wall->from->y) / $length];
            $along = static fn (Point $p): float => ($p->x - $wall->from->x) * $ux + ($p->y - $wall->from->y) * $uy;
            $off = static fn (Point $p): float => abs(($p->y - $wall->from->y) * $ux - ($p->x - $wall->from->x) * $uy);
            $reach = $wall->thickness / 2.0 + self::BESIDE_MM;
            [$first, $last] = [min($along($a), $along($b)), max($along($a), $along($b))];
            if ($first < 0.0 || $last > $length || $last - $first < 1.0 || max($off($a), $off($b)) > $reach) {
                continue;
            }
            foreach ($openings as $other) {
                if ($other->wall === $wall->id && $other->offset < $last && $other->offset + $other->width > $first) {
                    return null;
                }
            }
            $turn = static fn (string $way): string => $along($a) < $along($b) ? $way : ('left' === $way ? 'right' : 'left');

            return new Opening(
                $opening->id,
                $wall->id,
                $opening->kind,
                $first,
                $last - $first,
                $opening->sill,
                $opening->height,
                $turn($opening->hand),
                $turn($opening->swing),
                $opening->leaf,
                $opening->head,
                $opening->rise,
            );
        }

        return null;
    }
}
