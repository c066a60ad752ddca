<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Settling\Internal;

use Plinth\Core\Geometry\Blocks;

/**
 * Which ends were drawn on to a wall between its own ends: they stay on it.
 *
 * @internal
 */
final class EndsOnWalls
{
    /** An end that lies within this of a centre line, or within the wall's body, ends on that wall, mm. */
    private const NEAR_MM = 20.0;
    /** Nearer to the wall's own end it is another matter, mm. */
    private const FROM_END_MM = 1.0;

    /** @return list<array{int, string}> node and wall */
    public static function of(Traced $traced): array
    {
        $blocks = new Blocks();
        foreach ($traced->places as $node => [$x, $y]) {
            $blocks->put($node, [$x, $y, $x, $y]);
        }
        $found = [];
        foreach ($traced->straight as $id => [$from, $to]) {
            $id = (string) $id;
            [$x, $y] = $traced->places[$from];
            [$dx, $dy] = $traced->run($id);
            $length = hypot($dx, $dy);
            [$ux, $uy] = [$dx / $length, $dy / $length];
            $reach = max(self::NEAR_MM, $traced->thicknesses[$id] / 2.0);
            $box = [min($x, $x + $dx) - $reach, min($y, $y + $dy) - $reach, max($x, $x + $dx) + $reach, max($y, $y + $dy) + $reach];
            foreach ($blocks->near($box) ?? array_keys($traced->places) as $node) {
                if ($node === $from || $node === $to) {
                    continue;
                }
                [$px, $py] = [$traced->places[$node][0] - $x, $traced->places[$node][1] - $y];
                $along = $px * $ux + $py * $uy;
                if ($along > self::FROM_END_MM && $along < $length - self::FROM_END_MM && abs($py * $ux - $px * $uy) <= $reach) {
                    $found[] = [$node, $id];
                }
            }
        }

        return $found;
    }
}
