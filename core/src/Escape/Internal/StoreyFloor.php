<?php

declare(strict_types=1);

namespace Plinth\Core\Escape\Internal;

use Plinth\Core\Escape\Doorway;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

/**
 * What of a storey is walked on: its regions without what stands in them, and its doorways.
 *
 * @internal
 *
 * @phpstan-import-type Shape from Overlay
 */
final readonly class StoreyFloor
{
    /** Higher than this, mm, things hang over people's heads; lower than that they are stepped over. */
    private const HIGH_MM = 2000.0;
    private const LOW_MM = 50.0;
    /** mm: squares in which doorways are looked up, and more of them than there are in a row */
    private const SQUARE_MM = 4000.0;
    private const ROW = 1_000_000;
    /** mm by which a chord of a face may miss a jamb in it */
    private const NEAR = 0.5;

    /** @var array<int, array<string, Doorway>> by square */
    private array $doorwaysIn;

    /**
     * @param list<Shape> $cells
     * @param list<int> $regions by cell: which region it is of; −1 for a doorway
     * @param array<string, Doorway> $doorways by opening
     */
    private function __construct(public array $cells, public array $regions, public array $doorways)
    {
        $in = [];
        foreach ($doorways as $id => $doorway) {
            foreach (self::squares($doorway->ring()) as $square) {
                $in[$square][$id] = $doorway;
            }
        }
        $this->doorwaysIn = $in;
    }

    /**
     * @param array{float, float} $from
     * @param array{float, float} $to
     *
     * @return array<string, Doorway> those that a straight stretch may pass
     */
    public function near(array $from, array $to): array
    {
        $near = [];
        foreach (self::squares([$from, $to]) as $square) {
            $near += $this->doorwaysIn[$square] ?? [];
        }

        return $near;
    }

    /**
     * @param non-empty-list<array{float, float}> $places
     *
     * @return list<int> numbers of all squares of a grid that their bounds touch
     */
    private static function squares(array $places): array
    {
        $square = static fn (float $mm): int => (int) floor($mm / self::SQUARE_MM);
        [$left, $low, $right, $high] = array_map($square, Polygon::bounds($places));
        $squares = [];
        for ($i = $left; $i <= $right; ++$i) {
            for ($j = $low; $j <= $high; ++$j) {
                $squares[] = $i * self::ROW + $j;
            }
        }

        return $squares;
    }

    /** @param list<non-empty-list<array{float, float}>> $taken rings that stairs take: where they go up, and where they come up */
    public static function of(Storey $storey, DerivedStorey $derived, array $taken): self
    {
        $doorways = [];
        foreach ($storey->openings as $opening) {
            $ring = $derived->openings[$opening->id] ?? null;
            $doorway = null === $ring ? null : Doorway::of($opening, $ring);
            if (null !== $doorway) {
                $doorways[$opening->id] = $doorway;
            }
        }
        $without = [...$taken, ...self::standing($storey)];
        $boxes = array_map(Polygon::bounds(...), $without);
        // On straight faces jambs are corners of them anyway.
        $rises = array_filter(array_column($storey->walls, 'rise', 'id'), static fn (float $rise): bool => 0.0 !== $rise);
        $inWalls = [];
        foreach ($doorways as $doorway) {
            if (isset($rises[$doorway->opening->wall])) {
                $inWalls[$doorway->opening->wall][] = $doorway;
            }
        }
        [$cells, $regions] = [[], []];
        foreach ($derived->regions as $n => $region) {
            $own = array_merge(...array_map(static fn (string $wall): array => $inWalls[$wall] ?? [], $region->walls));
            $rings = array_map(static fn (array $ring): array => self::cut($ring, $own), [$region->polygon, ...$region->holes]);
            $box = Polygon::bounds($rings[0]);
            $touching = array_filter($boxes, static fn (array $of): bool => self::touch($box, $of));
            $near = array_values(array_intersect_key($without, $touching));
            // Where nothing stands about, it is walked on as it is.
            $left = [] === $near
                ? [['outer' => $rings[0], 'holes' => \array_slice($rings, 1)]]
                : Overlay::difference($rings, [...$near, ...Gaps::narrow($rings, $near)]);
            foreach ($left as $cell) {
                $cells[] = $cell;
                $regions[] = $n;
            }
        }
        foreach ($doorways as $doorway) {
            $cells[] = ['outer' => $doorway->ring(), 'holes' => []];
            $regions[] = -1;
        }

        return new self($cells, $regions, $doorways);
    }

    /**
     * @param array{float, float, float, float} $a
     * @param array{float, float, float, float} $b
     */
    private static function touch(array $a, array $b): bool
    {
        return $a[0] <= $b[2] && $b[0] <= $a[2] && $a[1] <= $b[3] && $b[1] <= $a[3];
    }

    /** @return list<non-empty-list<array{float, float}>> what one walks round */
    private static function standing(Storey $storey): array
    {
        $rings = [];
        foreach ($storey->columns as $column) {
            $rings[] = $column->outline();
        }
        foreach ($storey->objects as $object) {
            if ($object->base < self::HIGH_MM && $object->base + $object->height > self::LOW_MM) {
                $rings[] = self::outline($object);
            }
        }
        foreach ($storey->voids as $void) {
            $rings[] = $void->outline->points();
        }
        // Railings and low walls bound no room.
        foreach ($storey->walls as $wall) {
            if (!$wall->enclosing && $wall->length() > Wall::JOIN_MM) {
                $rings[] = $wall->body();
            }
        }

        return $rings;
    }

    /** @return non-empty-list<array{float, float}> */
    private static function outline(PlacedObject $object): array
    {
        [$c, $s] = [cos(deg2rad($object->degrees)), sin(deg2rad($object->degrees))];
        [$w, $d] = [$object->width / 2.0, $object->depth / 2.0];

        return array_map(
            static fn (array $p): array => [$object->at->x + $c * $p[0] - $s * $p[1], $object->at->y + $s * $p[0] + $c * $p[1]],
            [[-$w, -$d], [$w, -$d], [$w, $d], [-$w, $d]],
        );
    }

    /**
     * A ring with the sides of doorways in it as straight edges: chords of a curved face between their jambs are no corners.
     *
     * @param non-empty-list<array{float, float}> $ring
     * @param list<Doorway> $doorways
     *
     * @return non-empty-list<array{float, float}>
     */
    private static function cut(array $ring, array $doorways): array
    {
        foreach ($doorways as $doorway) {
            foreach ([$doorway->right, $doorway->left] as [$a, $b]) {
                [$i, $j] = [self::edge($ring, $a), self::edge($ring, $b)];
                if (null === $i || null === $j || $i === $j) {
                    continue;
                }
                // From the first jamb on the way round to the last, whichever way the wall runs.
                $n = \count($ring);
                [$from, $to, $first, $last] = ($j - $i + $n) % $n <= ($i - $j + $n) % $n ? [$i, $j, $a, $b] : [$j, $i, $b, $a];
                $kept = [];
                for ($k = ($to + 1) % $n; $k !== ($from + 1) % $n; $k = ($k + 1) % $n) {
                    $kept[] = $ring[$k];
                }
                $ring = [$first, $last, ...$kept];
            }
        }

        return $ring;
    }

    /**
     * @param non-empty-list<array{float, float}> $ring
     * @param array{float, float} $at
     */
    private static function edge(array $ring, array $at): ?int
    {
        foreach ($ring as $i => [$ax, $ay]) {
            [$bx, $by] = $ring[($i + 1) % \count($ring)];
            $length = hypot($bx - $ax, $by - $ay);
            if ($length <= 0.0) {
                continue;
            }
            $along = (($bx - $ax) * ($at[0] - $ax) + ($by - $ay) * ($at[1] - $ay)) / $length;
            $across = (($bx - $ax) * ($at[1] - $ay) - ($by - $ay) * ($at[0] - $ax)) / $length;
            if (abs($across) <= self::NEAR && $along > -1e-6 && $along < $length + 1e-6) {
                return $i;
            }
        }

        return null;
    }
}
