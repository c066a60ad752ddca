<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Model\Wall;

/**
 * Cells of what stands upright: from the floor it stands on up to its own height or what covers it, less what is cut out of it.
 *
 * Its part of the plan is cut along all edges of what it stands on and under, and where planes pass each other above it, so that over
 * each cell nothing changes.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 */
final readonly class Upright
{
    /** Less is no height, mm. */
    private const NOTHING_MM = 0.01;

    /**
     * @param list<Covering> $below what it stands on
     * @param list<Covering> $above what ends it where it is covered
     * @param list<Covering> $through what passes through it
     */
    public function __construct(private array $below, private array $above, private array $through = [])
    {
    }

    /**
     * @param list<Ring> $rings counter-clockwise, without holes
     * @param float $top mm; where it is covered it ends there
     * @param bool $isOwn whether its top is its own, and what covers it higher up is none of its business
     * @param Wall|null $wall that slices are measured along
     * @param list<Slice> $slices of the wall
     * @param bool $isFill whether it is what the slices hold; otherwise that is cut out of it
     *
     * @return list<Cell>
     */
    public function cells(
        array $rings,
        float $base,
        float $top,
        bool $isOwn = false,
        ?Wall $wall = null,
        array $slices = [],
        bool $isFill = false,
    ): array {
        if ([] === $rings) {
            return [];
        }
        $box = Polygon::bounds(array_merge(...$rings));
        [$near, $base, $top] = $this->settled($this->near($box, $base, $top), $rings, $box, $base, $top, $isOwn);
        if (null !== $wall && [] !== $slices) {
            $rings = self::sliced($rings, $wall, $slices);
        }
        foreach ($near as $coverings) {
            foreach ($coverings as $covering) {
                $rings = Cut::along($rings, $covering->edgesNear($box));
            }
        }
        $ends = [HeightPlane::level($base), HeightPlane::level($top)];
        $isFree = [] === $near['below'] && [] === $near['above'] && [] === $near['through'];
        $cells = [];
        foreach ($rings as $ring) {
            $at = Cut::inside($ring);
            $within = null === $wall ? [] : self::at($wall->along(...$at), $slices);
            if ($isFree && [] === $within) {
                if (!$isFill) {
                    $cells[] = new Cell([$ring], [$ends]);
                }
                continue;
            }
            $covers = static fn (Covering $c): bool => $c->covers(...$at);
            $stands = array_map(static fn (Covering $c): HeightPlane => $c->top, array_filter($near['below'], $covers));
            $limits = array_map(static fn (Covering $c): HeightPlane => $c->bottom, array_filter($near['above'], $covers));
            $held = array_map(static fn (Covering $c): array => [$c->bottom, $c->top], array_filter($near['through'], $covers));
            $limits = array_values([] === $limits || $isOwn ? [...$limits, $ends[1]] : $limits);
            $stands = array_values([] === $stands ? [$ends[0]] : $stands);
            if ($isFill && [] === $within) {
                continue;
            }
            $planes = [...$stands, ...$limits, ...array_merge(...$within, ...$held)];
            foreach (self::whereNoneCross($ring, $planes) as $part) {
                $middle = $part === $ring ? $at : Cut::inside($part);
                $spans = [[self::outermost($stands, $middle, 1.0), self::outermost($limits, $middle, -1.0)]];
                $spans = $isFill ? self::common($spans[0], $within, $middle) : self::without($spans, $within, $middle);
                $spans = self::without($spans, array_values($held), $middle);
                if ([] !== $spans) {
                    $cells[] = new Cell([$part], $spans);
                }
            }
        }

        return $cells;
    }

    /**
     * Where something begins and ends that nothing comes near to, or all of which lies on and under the same.
     *
     * @param Ring $ring
     *
     * @return array{float, float}|null base and top; null where they differ from place to place
     */
    public function levels(array $ring, float $base, float $top, bool $isOwn): ?array
    {
        $box = Polygon::bounds($ring);
        [$left, $base, $top] = $this->settled($this->near($box, $base, $top), [$ring], $box, $base, $top, $isOwn);

        return [] === $left['below'] && [] === $left['above'] && [] === $left['through'] ? [$base, $top] : null;
    }

    /**
     * Level coverings whose edges do not come near hold for all of it, or for nothing: they are told once.
     *
     * @param array{below: list<Covering>, above: list<Covering>, through: list<Covering>} $near
     * @param non-empty-list<Ring> $rings
     * @param array{float, float, float, float} $box
     *
     * @return array{array{below: list<Covering>, above: list<Covering>, through: list<Covering>}, float, float} what is left, base and top
     */
    private function settled(array $near, array $rings, array $box, float $base, float $top, bool $isOwn): array
    {
        $at = null;
        $left = ['below' => [], 'above' => [], 'through' => $near['through']];
        $stands = [];
        foreach ($near['below'] as $covering) {
            if (!$covering->top->isLevel() || self::isCutBy($covering, $rings, $box)) {
                $left['below'][] = $covering;
            } elseif ($covering->covers(...$at ??= Cut::inside($rings[0]))) {
                $stands[] = $covering->top->z;
            }
        }
        $limits = [];
        foreach ($near['above'] as $covering) {
            if (!$covering->bottom->isLevel() || self::isCutBy($covering, $rings, $box)) {
                $left['above'][] = $covering;
            } elseif ($covering->covers(...$at ??= Cut::inside($rings[0]))) {
                $limits[] = $covering->bottom->z;
            }
        }
        // Beside others they count with them.
        if ([] !== $left['below'] && [] !== $stands) {
            $left['below'] = $near['below'];
            $stands = [];
        }
        if ([] !== $left['above'] && [] !== $limits) {
            $left['above'] = $near['above'];
            $limits = [];
        }

        return [$left, [] === $stands ? $base : max($stands), [] === $limits ? $top : min([...$isOwn ? [$top] : [], ...$limits])];
    }

    /**
     * Whether the edges of a covering come near; to one ring by itself only those come that pass through it.
     *
     * @param non-empty-list<Ring> $rings
     * @param array{float, float, float, float} $box
     */
    private static function isCutBy(Covering $covering, array $rings, array $box): bool
    {
        foreach ($covering->edgesNear($box) as [$p, $q]) {
            if (\count($rings) > 1 || Cut::passes($rings[0], $p, $q)) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return float mm up to which all that stands there is whole
     */
    public function clear(array $box, float $base, float $top): float
    {
        $isNear = static fn (Covering $c): bool => $c->isNear($box);
        if ([] !== array_filter($this->through, $isNear)) {
            return $base;
        }
        $limits = array_map(static fn (Covering $c): float => $c->lowest, array_values(array_filter($this->above, $isNear)));

        return min([$top, ...$limits]);
    }

    /**
     * @param array{float, float, float, float} $box
     * @param float $base mm, where it stands
     * @param float $top mm, where it ends if nothing covers it
     *
     * @return array{below: list<Covering>, above: list<Covering>, through: list<Covering>}
     */
    private function near(array $box, float $base, float $top): array
    {
        $isNear = static fn (Covering $c): bool => $c->isNear($box);
        $above = array_values(array_filter($this->above, $isNear));
        // What nothing passes is not cut up for it.
        $highest = max([$top, ...array_map(static fn (Covering $c): float => $c->highest, $above)]);
        $isPassed = static fn (Covering $c): bool => $c->isNear($box) && $c->highest > $base && $c->lowest < $highest;

        return [
            'below' => array_values(array_filter($this->below, $isNear)),
            'above' => $above,
            'through' => array_values(array_filter($this->through, $isPassed)),
        ];
    }

    /**
     * @param list<Ring> $rings
     * @param list<Slice> $slices
     *
     * @return list<Ring> cut across the wall at the ends of all slices
     */
    private static function sliced(array $rings, Wall $wall, array $slices): array
    {
        $cuts = [];
        foreach ($slices as $slice) {
            $cuts[] = $slice->from;
            $cuts[] = $slice->to;
        }
        sort($cuts);
        $done = [];
        $last = -\INF;
        foreach ($cuts as $along) {
            if ($along === $last) {
                continue;
            }
            $last = $along;
            $on = $wall->at($along);
            // Far enough off that rounding does not turn it.
            $beside = $wall->at($along, 1000.0);
            [$rest, $before] = [[], []];
            foreach ($rings as $ring) {
                [$left, $right] = Cut::line($ring, $on->toArray(), [$beside->x - $on->x, $beside->y - $on->y]);
                array_push($before, ...$left);
                array_push($rest, ...$right);
            }
            // What lies before a cut lies before those that follow, too; only round an arc it may not.
            if (null === $wall->arc()) {
                array_push($done, ...$before);
                $rings = $rest;
            } else {
                $rings = [...$before, ...$rest];
            }
        }

        return [...$done, ...$rings];
    }

    /**
     * @param list<Slice> $slices
     *
     * @return list<array{HeightPlane, HeightPlane}> of all slices at a place along the wall
     */
    private static function at(float $along, array $slices): array
    {
        $spans = [];
        foreach ($slices as $slice) {
            if ($along > $slice->from && $along < $slice->to) {
                array_push($spans, ...$slice->spans);
            }
        }

        return $spans;
    }

    /**
     * @param Ring $ring
     * @param list<HeightPlane> $planes
     *
     * @return list<Ring> parts over which none of the planes passes another
     */
    private static function whereNoneCross(array $ring, array $planes): array
    {
        $rings = [$ring];
        if ([] === array_filter($planes, static fn (HeightPlane $p): bool => !$p->isLevel())) {
            return $rings;
        }
        foreach ($planes as $a => $one) {
            for ($b = 0; $b < $a; ++$b) {
                $other = $planes[$b];
                [$gx, $gy] = [$one->dx - $other->dx, $one->dy - $other->dy];
                $steep = $gx * $gx + $gy * $gy;
                if ($steep < 1e-12) {
                    continue;
                }
                $parts = [];
                foreach ($rings as $each) {
                    $over = array_map(static fn (array $p): float => $one->at(...$p) - $other->at(...$p), $each);
                    if (min($over) > -self::NOTHING_MM || max($over) < self::NOTHING_MM) {
                        $parts[] = $each;
                        continue;
                    }
                    [$x, $y] = $each[0];
                    $on = [$x - $over[0] * $gx / $steep, $y - $over[0] * $gy / $steep];
                    [$left, $right] = Cut::line($each, $on, [-$gy, $gx]);
                    array_push($parts, ...$left, ...$right);
                }
                $rings = $parts;
            }
        }

        return $rings;
    }

    /**
     * @param non-empty-list<HeightPlane> $planes
     * @param array{float, float} $at
     * @param float $sign 1 for the highest, −1 for the lowest
     */
    private static function outermost(array $planes, array $at, float $sign): HeightPlane
    {
        $best = $planes[0];
        foreach ($planes as $plane) {
            if ($sign * ($plane->at(...$at) - $best->at(...$at)) > 0.0) {
                $best = $plane;
            }
        }

        return $best;
    }

    /**
     * @param list<array{HeightPlane, HeightPlane}> $spans
     * @param list<array{HeightPlane, HeightPlane}> $cuts
     * @param array{float, float} $at
     *
     * @return list<array{HeightPlane, HeightPlane}>
     */
    private static function without(array $spans, array $cuts, array $at): array
    {
        foreach ($cuts as [$from, $to]) {
            $left = [];
            foreach ($spans as [$bottom, $top]) {
                [$b, $t, $f, $u] = [$bottom->at(...$at), $top->at(...$at), $from->at(...$at), $to->at(...$at)];
                if ($f >= $t || $u <= $b) {
                    $left[] = [$bottom, $top];
                    continue;
                }
                if ($f > $b + self::NOTHING_MM) {
                    $left[] = [$bottom, $from];
                }
                if ($u < $t - self::NOTHING_MM) {
                    $left[] = [$to, $top];
                }
            }
            $spans = $left;
        }

        return array_values(
            array_filter($spans, static fn (array $s): bool => $s[1]->at(...$at) - $s[0]->at(...$at) > self::NOTHING_MM),
        );
    }

    /**
     * @param array{HeightPlane, HeightPlane} $span
     * @param list<array{HeightPlane, HeightPlane}> $fills
     * @param array{float, float} $at
     *
     * @return list<array{HeightPlane, HeightPlane}> what of the fills lies within the span
     */
    private static function common(array $span, array $fills, array $at): array
    {
        $kept = [];
        foreach ($fills as [$bottom, $top]) {
            $bottom = self::outermost([$bottom, $span[0]], $at, 1.0);
            $top = self::outermost([$top, $span[1]], $at, -1.0);
            if ($top->at(...$at) - $bottom->at(...$at) > self::NOTHING_MM) {
                $kept[] = [$bottom, $top];
            }
        }

        return $kept;
    }
}
