<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs\Internal;

use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Stairs\Exception\UnbuildableStair;

/**
 * A part of a walking line without corners: straight pieces and arcs that go on from each other.
 *
 * @internal
 */
final class WalkingLine
{
    /** How far chords may lie off the outer edge of treads round an arc, mm. */
    private const OFF_MM = 0.25;

    /** @var list<array{Point, Point, Arc|null, float}> with how far along each begins */
    private array $pieces = [];
    private float $length = 0.0;

    public function add(Point $from, Point $to, ?Arc $arc): void
    {
        $length = $arc?->length() ?? $from->distanceTo($to);
        if ($length > 0.0) {
            $this->pieces[] = [$from, $to, $arc, $this->length];
            $this->length += $length;
        }
    }

    public function length(): float
    {
        return $this->length;
    }

    /** @throws UnbuildableStair where a half width does not fit inside an arc */
    public function holds(float $half): void
    {
        foreach ($this->pieces as [, , $arc]) {
            if (null !== $arc && $arc->radius < $half - 1e-6) {
                throw UnbuildableStair::tight($arc->radius, 2.0 * $half);
            }
        }
    }

    /** @return array{float, float} mm; $left to its left, at a distance along it */
    public function at(float $along, float $left): array
    {
        [$from, $to, $arc, $start] = $this->piece($along);
        $length = $arc?->length() ?? $from->distanceTo($to);
        $part = max(0.0, min(1.0, ($along - $start) / $length));
        if (null !== $arc) {
            return $arc->at($part, $left)->toArray();
        }
        [$ux, $uy] = [($to->x - $from->x) / $length, ($to->y - $from->y) / $length];

        return [$from->x + $part * ($to->x - $from->x) - $left * $uy, $from->y + $part * ($to->y - $from->y) + $left * $ux];
    }

    /** Whether it runs straight between two distances. */
    public function isStraight(float $from, float $to): bool
    {
        foreach ($this->pieces as [$a, $b, $arc, $start]) {
            if (null !== $arc && $start < $to - 1e-6 && $start + $arc->length() > $from + 1e-6) {
                return false;
            }
        }

        return true;
    }

    /** @return non-empty-list<float> where an edge between two distances has its corners, both ends with it */
    public function corners(float $from, float $to, float $half): array
    {
        $at = [$from];
        foreach ($this->pieces as [$a, $b, $arc, $start]) {
            $end = $start + ($arc?->length() ?? $a->distanceTo($b));
            [$first, $last] = [max($from, $start), min($to, $end)];
            if ($last - $first < 1e-6) {
                continue;
            }
            $count = null === $arc ? 1 : $arc->chords(self::OFF_MM, $half, ($last - $first) / $arc->length());
            for ($i = 1; $i <= $count; ++$i) {
                $at[] = $i === $count ? $last : $first + ($last - $first) * $i / $count;
            }
        }
        $at[\count($at) - 1] = $to;

        return $at;
    }

    /** @return array{Point, Point, Arc|null, float} */
    private function piece(float $along): array
    {
        $found = $this->pieces[0];
        foreach ($this->pieces as $piece) {
            if ($piece[3] <= $along + 1e-9) {
                $found = $piece;
            }
        }

        return $found;
    }
}
