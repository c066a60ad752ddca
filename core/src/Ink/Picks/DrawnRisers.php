<?php

declare(strict_types=1);

namespace Plinth\Core\Ink\Picks;

use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Ink\Page\PageInk;
use Plinth\Core\Numerics\Median;

/**
 * The risers that a drawing shows along a flight: lines across it at an even distance, counted at several places of its width. The
 * arrow that runs up in the middle, numbers beside it and a cut across are at none of those the same: what most of them agree on holds.
 */
final readonly class DrawnRisers
{
    /** Where along the width they are counted, as parts of it from the middle. */
    private const BESIDE = [-0.32, -0.22, -0.12, 0.12, 0.22, 0.32];
    /** of those so many have to agree */
    private const AGREE = 4;
    /** A going that is none, mm. */
    private const GOING_MM = [120.0, 600.0];

    /**
     * @param int $count of risers
     * @param Point $from on the line, at the first of them
     * @param Point $to at the last
     * @param float $agreed part of the places that say so
     */
    private function __construct(public int $count, public Point $from, public Point $to, public float $agreed)
    {
    }

    /** @return float mm from one to the next */
    public function going(): float
    {
        return $this->from->distanceTo($this->to) / ($this->count - 1);
    }

    /**
     * @param Point $from near the first riser, in the middle of the flight
     * @param Point $to near the last
     * @param float $width mm
     */
    public static function between(PageInk $ink, PixelToMm $map, Point $from, Point $to, float $width): ?self
    {
        $length = $from->distanceTo($to);
        if ($length < 2.0 * self::GOING_MM[0]) {
            return null;
        }
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];
        $found = [];
        foreach (self::BESIDE as $part) {
            [$dx, $dy] = [-$uy * $part * $width, $ux * $part * $width];
            $count = JointCount::along($ink, $map->toPixel($from->plus($dx, $dy)), $map->toPixel($to->plus($dx, $dy)));
            if (null === $count || \count($count->ticks) < 3) {
                continue;
            }
            $ends = [];
            foreach ([$count->ticks[0], $count->ticks[\count($count->ticks) - 1]] as $tick) {
                $at = $map->toMm($tick);
                $ends[] = ($at->x - $from->x) * $ux + ($at->y - $from->y) * $uy;
            }
            $going = ($ends[1] - $ends[0]) / (\count($count->ticks) - 1);
            if ($going > self::GOING_MM[0] && $going < self::GOING_MM[1]) {
                $found[\count($count->ticks)][] = $ends;
            }
        }
        uasort($found, static fn (array $a, array $b): int => \count($b) <=> \count($a));
        $risers = array_key_first($found);
        if (null === $risers || \count($found[$risers]) < self::AGREE) {
            return null;
        }
        [$first, $last] = [Median::of(array_column($found[$risers], 0)), Median::of(array_column($found[$risers], 1))];

        return new self(
            $risers,
            $from->plus($first * $ux, $first * $uy),
            $from->plus($last * $ux, $last * $uy),
            \count($found[$risers]) / \count(self::BESIDE),
        );
    }
}
