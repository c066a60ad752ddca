<?php

declare(strict_types=1);

namespace Plinth\Core\Enclosure;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Enclosure;

/**
 * What an enclosure covers of its storey.
 *
 * @phpstan-import-type Shape from Overlay
 * @phpstan-import-type Ring from Polygon
 */
final readonly class EnclosedArea
{
    /** mm beside a face, where one is in the room there */
    private const BESIDE = 5.0;

    /** @param list<Shape> $shapes mm */
    private function __construct(public Enclosure $enclosure, public array $shapes)
    {
    }

    public static function of(Enclosure $enclosure, DerivedStorey $storey): self
    {
        $regions = array_values(array_filter(
            $storey->regions,
            static fn (Region $r): bool => null !== $r->room && \in_array($r->room->id, $enclosure->rooms, true),
        ));
        $rings = self::between($regions, $storey);
        foreach ($regions as $region) {
            array_push($rings, $region->polygon, ...$region->holes);
        }
        if (null !== $enclosure->outline) {
            $ring = $enclosure->outline->points();
            $rings[] = Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
        }

        return new self($enclosure, [] === $rings ? [] : Overlay::union($rings));
    }

    /** @return float mm² */
    public function area(): float
    {
        return Overlay::area($this->shapes);
    }

    /** @return array{float, float}|null well inside the largest of its shapes */
    public function label(): ?array
    {
        return self::inside($this->shapes);
    }

    /**
     * @param list<Shape> $shapes
     *
     * @return array{float, float}|null
     */
    public static function inside(array $shapes): ?array
    {
        usort($shapes, static fn (array $a, array $b): int => Overlay::area([$b]) <=> Overlay::area([$a]));

        return [] === $shapes ? null : Polygon::labelPoint($shapes[0]['outer'], $shapes[0]['holes']);
    }

    /** Whether a place lies in it. */
    public function holds(float $x, float $y): bool
    {
        foreach ($this->shapes as $shape) {
            $isInHole = [] !== array_filter($shape['holes'], static fn (array $hole): bool => Polygon::contains($hole, $x, $y));
            if (!$isInHole && Polygon::contains($shape['outer'], $x, $y)) {
                return true;
            }
        }

        return false;
    }

    /** @return list<Ring> its rings, holes the other way round */
    public function rings(): array
    {
        $rings = [];
        foreach ($this->shapes as $shape) {
            array_push($rings, $shape['outer'], ...$shape['holes']);
        }

        return $rings;
    }

    /**
     * What of the walls stands between two of some regions.
     *
     * @param list<Region> $regions
     *
     * @return list<Ring>
     */
    private static function between(array $regions, DerivedStorey $storey): array
    {
        $walls = array_count_values(array_merge(...array_map(static fn (Region $r): array => $r->walls, $regions)));
        $isIn = static fn (float $x, float $y): bool => [] !== array_filter(
            $regions,
            static fn (Region $r): bool => $r->holds($x, $y),
        );
        $rings = [];
        foreach (array_keys($walls) as $id) {
            foreach ($storey->walls[$id]->stretches ?? [] as ['right' => $right, 'left' => $left]) {
                if ([] === $right || [] === $left) {
                    continue;
                }
                // From face to face, and not on to where its centre line ends in other walls.
                $ring = [...$right, ...$left];
                [$r, $l] = [self::middle($right), self::middle($left)];
                $thick = max(1e-6, hypot($r[0] - $l[0], $r[1] - $l[1]));
                [$u, $v] = [self::BESIDE * ($r[0] - $l[0]) / $thick, self::BESIDE * ($r[1] - $l[1]) / $thick];
                if (Polygon::area($ring) > 0.0 && $isIn($r[0] + $u, $r[1] + $v) && $isIn($l[0] - $u, $l[1] - $v)) {
                    $rings[] = $ring;
                }
            }
        }

        return $rings;
    }

    /**
     * @param non-empty-list<array{float, float}> $path
     *
     * @return array{float, float}
     */
    private static function middle(array $path): array
    {
        [[$ax, $ay], [$bx, $by]] = [$path[0], $path[\count($path) - 1]];

        return [($ax + $bx) / 2.0, ($ay + $by) / 2.0];
    }
}
