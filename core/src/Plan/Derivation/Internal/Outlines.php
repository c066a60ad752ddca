<?php

declare(strict_types=1);

namespace Plinth\Core\Plan\Derivation\Internal;

use Plinth\Core\Geometry\Tolerance;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Network\Face;

/**
 * The body of each connected group of walls that bound rooms.
 *
 * @internal
 */
final class Outlines
{
    /**
     * @param array<int, Face> $bounded by their object's id
     * @param array<int, Face> $outer
     *
     * @return list<BodyOutline> the body of each connected group of walls that bound rooms
     */
    public static function of(Layer $layer, array $bounded, array $outer): array
    {
        // Faces that share a node belong to one group.
        $atNode = [];
        foreach ($bounded + $outer as $i => $face) {
            foreach ($face->halves as $h) {
                $atNode[$layer->network->halves[$h]['start']][$i] = true;
            }
        }
        $group = [];
        foreach ($outer as $start => $_) {
            $stack = [$start];
            while (null !== ($i = array_pop($stack))) {
                if (isset($group[$i])) {
                    continue;
                }
                $group[$i] = $start;
                foreach (($bounded[$i] ?? $outer[$i])->halves as $h) {
                    foreach ($atNode[$layer->network->halves[$h]['start']] as $other => $_) {
                        if (!isset($group[$other])) {
                            $stack[] = $other;
                        }
                    }
                }
            }
        }
        $edges = [];
        $holes = [];
        foreach ($bounded + $outer as $i => $face) {
            foreach ($face->halves as $h) {
                $edges[$group[$i]][$h >> 1] = true;
            }
            if (isset($bounded[$i]) && [] !== $face->faces && $face->area > 0.0) {
                $holes[$group[$i]][] = array_reverse($face->faces);
            }
        }
        $outlines = [];
        $tangled = [];
        foreach ($outer as $i => $face) {
            if ($group[$i] !== $i) {
                // Where walls lie on each other a group may have its outside in two parts: it is told once.
                continue;
            }
            $isPlain = [] === array_filter(array_keys($edges[$i]), static fn (int $e): bool => !$layer->bodies->isPlain($e));
            if (!$isPlain) {
                $tangled = [...$tangled, ...array_keys($edges[$i])];
            } elseif ([] !== $face->faces && $face->area < -Tolerance::ROUND_OFF_MM2) {
                // Dividers alone have no body.
                $outlines[] = new BodyOutline(array_reverse($face->faces), $holes[$i] ?? []);
            }
        }
        foreach ($layer->bodies->union($tangled) as ['outer' => $ring, 'holes' => $inside]) {
            $outlines[] = new BodyOutline($ring, $inside);
        }

        return $outlines;
    }
}
