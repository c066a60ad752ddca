<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies\Internal;

use Plinth\Core\Geometry\Blocks;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Network\Neighbourhood;

/**
 * What walls and columns of a storey cover of the plan, found by place.
 *
 * @internal
 *
 * @phpstan-import-type Ring from Cut
 * @phpstan-import-type Shape from Overlay
 */
final class Footprints
{
    /** of parts of walls, by their numbers */
    private ?Blocks $blocks = null;
    /**
     * Parts of walls, and holes in them.
     *
     * @var list<array{ring: Ring, box: array{float, float, float, float}, wall: string, toCeiling: bool}>
     */
    private array $parts = [];

    public function __construct(private readonly Neighbourhood $plan, private readonly Derivation $derivation)
    {
    }

    /**
     * What walls and columns leave of rings.
     *
     * @param non-empty-list<Ring> $rings
     * @param bool $andColumns whether columns stand there, too
     * @param bool $overPartitions whether what ends under ceilings is none of them
     * @param list<string> $except walls that are none of them either
     *
     * @return list<Shape>
     */
    public function beside(array $rings, bool $andColumns = false, bool $overPartitions = false, array $except = []): array
    {
        $box = Polygon::bounds(array_merge(...$rings));
        $near = [];
        foreach ($this->near($box) as ['ring' => $ring, 'wall' => $wall, 'toCeiling' => $toCeiling]) {
            if ((!$overPartitions || !$toCeiling) && !\in_array($wall, $except, true)) {
                $near[] = $ring;
            }
        }
        foreach ($andColumns ? $this->plan->columns($box) : [] as $column) {
            $near[] = $column->outline();
        }

        // Most ceilings lie between walls already.
        $near = array_values(array_filter($near, static function (array $ring) use ($rings): bool {
            foreach ($rings as $of) {
                if (!Cut::isBeside($of, $ring)) {
                    return true;
                }
            }

            return false;
        }));

        return Rings::less($rings, $near);
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return list<array{ring: Ring, box: array{float, float, float, float}, wall: string, toCeiling: bool}> parts of walls near a box
     */
    private function near(array $box): array
    {
        if (null === $this->blocks) {
            $this->blocks = new Blocks();
            foreach ($this->derivation->footprints($this->derivation->all()) as $id => $shapes) {
                $toCeiling = $this->derivation->wall($id)->toCeiling ?? false;
                foreach ($shapes as $shape) {
                    foreach ([$shape['outer'], ...$shape['holes']] as $ring) {
                        $this->blocks->put(\count($this->parts), Polygon::bounds($ring));
                        $this->parts[] = ['ring' => $ring, 'box' => Polygon::bounds($ring), 'wall' => $id, 'toCeiling' => $toCeiling];
                    }
                }
            }
        }
        $near = array_map(
            fn (int|string $n): array => $this->parts[$n],
            $this->blocks->near($box) ?? array_keys($this->parts),
        );

        return array_values(array_filter(
            $near,
            static fn (array $f): bool => self::overlap($f['box'], $box),
        ));
    }

    /**
     * @param array{float, float, float, float} $a
     * @param array{float, float, float, float} $b
     */
    private static function overlap(array $a, array $b): bool
    {
        return $a[0] < $b[2] && $a[2] > $b[0] && $a[1] < $b[3] && $a[3] > $b[1];
    }
}
