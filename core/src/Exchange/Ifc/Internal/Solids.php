<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\Ifc\Internal;

use Plinth\Core\Bodies\Mesh;
use Plinth\Core\Bodies\Placement;

/**
 * Closed surfaces as IFC has solids: what is level above and below and upright all round is an area drawn out, all else plane faces.
 *
 * @internal
 */
final class Solids
{
    /** Heights and places nearer than this are one, mm. */
    private const SAME_MM = 1e-6;

    /** @var \WeakMap<Mesh, string> forms that several things share */
    private \WeakMap $maps;
    private ?string $origin = null;
    private ?string $up = null;
    private ?string $level = null;

    public function __construct(private readonly StepFile $step, private readonly string $context)
    {
        $this->maps = new \WeakMap();
    }

    /**
     * A thing's shape where it stands.
     *
     * @param non-empty-list<array{Mesh, Placement|null}> $parts all of them with the same placement, or without
     * @param string $relativeTo placement of its storey
     * @param float $elevation of that, mm
     * @param array{float, float} $along a unit vector that what lies there runs along, where that is known
     *
     * @return array{string, string} its placement, and its shape
     */
    public function of(array $parts, string $relativeTo, float $elevation, array $along = [1.0, 0.0]): array
    {
        $placement = $parts[0][1];
        if (null !== $placement) {
            $at = $this->placed($placement->x, $placement->y, $placement->z - $elevation, $relativeTo, $placement->cos, $placement->sin);
            $items = array_map(fn (array $p): string => $this->shared($p[0]), $parts);

            return [$at, $this->shape($items, 'MappedRepresentation')];
        }
        // About a place of its own: whoever works in single precision loses nothing.
        [$x, $y, $z] = [\INF, \INF, \INF];
        foreach ($parts as [$mesh]) {
            foreach ($mesh->vertices as $p) {
                [$x, $y, $z] = [min($x, $p[0]), min($y, $p[1]), min($z, $p[2])];
            }
        }
        [$x, $y, $z] = [floor($x), floor($y), floor($z)];
        $frame = new Placement($x, $y, $z, $along[0], $along[1]);
        $solids = array_map(fn (array $p): array => $this->solid($p[0], $frame), $parts);
        $kinds = array_unique(array_column($solids, 1));

        return [
            $this->placed($x, $y, $z - $elevation, $relativeTo, $along[0], $along[1]),
            $this->shape(array_column($solids, 0), 1 === \count($kinds) ? $kinds[0] : 'SolidModel'),
        ];
    }

    public function placed(float $x, float $y, float $z, string $relativeTo, float $cos = 1.0, float $sin = 0.0): string
    {
        $this->up ??= $this->step->add('IFCDIRECTION', StepFile::reals([0.0, 0.0, 1.0]));
        $along = 1.0 === $cos
            ? ($this->level ??= $this->step->add('IFCDIRECTION', StepFile::reals([1.0, 0.0, 0.0])))
            : $this->step->add('IFCDIRECTION', StepFile::reals([$cos, $sin, 0.0]));
        $at = $this->step->add('IFCAXIS2PLACEMENT3D', $this->point([$x, $y, $z]), $this->up, $along);

        return $this->step->add('IFCLOCALPLACEMENT', $relativeTo, $at);
    }

    /** @param list<float> $at */
    public function point(array $at): string
    {
        return $this->step->add('IFCCARTESIANPOINT', StepFile::reals($at));
    }

    /** @param list<array{float, float}> $ring without its first place once more at its end */
    public function ring(array $ring): string
    {
        $points = array_map($this->point(...), $ring);

        return $this->step->add('IFCPOLYLINE', StepFile::list([...$points, ...\array_slice($points, 0, 1)]));
    }

    /** @param list<string> $items */
    public function shape(array $items, string $kind, ?string $context = null, string $named = 'Body'): string
    {
        $shape = $this->step->add('IFCSHAPEREPRESENTATION', $context ?? $this->context, "'$named'", "'$kind'", StepFile::list($items));

        return $this->step->add('IFCPRODUCTDEFINITIONSHAPE', '$', '$', "($shape)");
    }

    /** A form that was drawn already is drawn once. */
    private function shared(Mesh $form): string
    {
        $this->origin ??= $this->step->add('IFCAXIS2PLACEMENT3D', $this->point([0.0, 0.0, 0.0]), '$', '$');
        if (!isset($this->maps[$form])) {
            [$solid, $kind] = $this->solid($form, new Placement(0.0, 0.0, 0.0, 1.0, 0.0));
            $shape = $this->step->add('IFCSHAPEREPRESENTATION', $this->context, "'Body'", "'$kind'", "($solid)");
            $this->maps[$form] = $this->step->add('IFCREPRESENTATIONMAP', $this->origin, $shape);
        }
        $target = $this->step->add('IFCCARTESIANTRANSFORMATIONOPERATOR3D', '$', '$', $this->point([0.0, 0.0, 0.0]), '1.', '$');

        return $this->step->add('IFCMAPPEDITEM', $this->maps[$form], $target);
    }

    /** @return array{string, string} about a place, and what kind of solid it is */
    private function solid(Mesh $mesh, Placement $frame): array
    {
        $vertices = array_map($frame->from(...), $mesh->vertices);
        $drawn = self::drawnOut($vertices, $mesh->faces);
        if (null === $drawn) {
            return [$this->faceted($vertices, $mesh->faces), 'Tessellation'];
        }
        [$rings, $low, $high] = $drawn;
        $outer = $this->ring($rings[0]);
        $holes = array_map($this->ring(...), \array_slice($rings, 1));
        $profile = [] === $holes
            ? $this->step->add('IFCARBITRARYCLOSEDPROFILEDEF', '.AREA.', '$', $outer)
            : $this->step->add('IFCARBITRARYPROFILEDEFWITHVOIDS', '.AREA.', '$', $outer, StepFile::list($holes));
        $at = $this->step->add('IFCAXIS2PLACEMENT3D', $this->point([0.0, 0.0, $low]), '$', '$');
        $this->up ??= $this->step->add('IFCDIRECTION', StepFile::reals([0.0, 0.0, 1.0]));

        return [$this->step->add('IFCEXTRUDEDAREASOLID', $profile, $at, $this->up, StepFile::real($high - $low)), 'SweptSolid'];
    }

    /**
     * @param list<array{float, float, float}> $vertices
     * @param list<non-empty-list<list<int>>> $faces
     *
     * @return array{non-empty-list<list<array{float, float}>>, float, float}|null rings of its area, the outer one first, from where and up
     *                                                                             to where; null for anything else
     */
    private static function drawnOut(array $vertices, array $faces): ?array
    {
        $heights = array_column($vertices, 2);
        if ([] === $heights) {
            return null;
        }
        [$low, $high] = [min($heights), max($heights)];
        $bottom = null;
        foreach ($faces as $face) {
            $at = array_map(static fn (int $v): float => $heights[$v], array_merge(...$face));
            [$least, $most] = [] === $at ? [$low, $high] : [min($at), max($at)];
            if ($most - $low < self::SAME_MM) {
                if (null !== $bottom) {
                    return null;
                }
                $bottom = $face;
            } elseif ($high - $least >= self::SAME_MM) {
                // Upright: as many corners above as below, over each other.
                foreach ($at as $z) {
                    if ($z - $low > self::SAME_MM && $high - $z > self::SAME_MM) {
                        return null;
                    }
                }
            }
        }
        // Whatever is below is above as well: half of its corners each.
        $corners = null === $bottom ? 0 : array_sum(array_map(\count(...), $bottom));
        if (null === $bottom || 2 * $corners !== \count($vertices) || \count($faces) !== $corners + 2) {
            return null;
        }
        foreach ($vertices as [$vx, $vy, $vz]) {
            $isOver = $high - $vz < self::SAME_MM;
            foreach ($isOver ? array_merge(...$bottom) : [] as $v) {
                if (abs($vertices[$v][0] - $vx) + abs($vertices[$v][1] - $vy) < self::SAME_MM) {
                    continue 2;
                }
            }
            if ($isOver) {
                return null;
            }
        }

        // Seen from below it runs clockwise: the other way round seen from above.
        return [array_map(static fn (array $ring): array => self::withoutStraightCorners(array_map(
            static fn (int $v): array => [$vertices[$v][0], $vertices[$v][1]],
            array_reverse($ring),
        )), $bottom), $low, $high];
    }

    /**
     * An area drawn out needs no corners at which it only goes straight on, as two mitred walls have in the middle.
     *
     * @param list<array{float, float}> $ring
     *
     * @return list<array{float, float}>
     */
    private static function withoutStraightCorners(array $ring): array
    {
        $kept = [];
        foreach ($ring as $i => [$x, $y]) {
            [$ax, $ay] = $kept[\count($kept) - 1] ?? $ring[\count($ring) - 1];
            [$bx, $by] = $ring[($i + 1) % \count($ring)];
            $long = hypot($bx - $ax, $by - $ay);
            if ($long < self::SAME_MM || abs(($x - $ax) * ($by - $ay) - ($y - $ay) * ($bx - $ax)) > self::SAME_MM * $long) {
                $kept[] = [$x, $y];
            }
        }

        return $kept;
    }

    /**
     * @param list<array{float, float, float}> $vertices
     * @param list<non-empty-list<list<int>>> $faces
     */
    private function faceted(array $vertices, array $faces): string
    {
        $points = $this->step->add('IFCCARTESIANPOINTLIST3D', StepFile::list(array_map(StepFile::reals(...), $vertices)));
        $drawn = [];
        foreach ($faces as $face) {
            $holes = array_map(self::numbers(...), \array_slice($face, 1));
            $drawn[] = [] === $holes
                ? $this->step->add('IFCINDEXEDPOLYGONALFACE', self::numbers($face[0]))
                : $this->step->add('IFCINDEXEDPOLYGONALFACEWITHVOIDS', self::numbers($face[0]), StepFile::list($holes));
        }

        return $this->step->add('IFCPOLYGONALFACESET', $points, '.T.', StepFile::list($drawn), '$');
    }

    /** @param list<int> $ring of vertices, which a file counts from one */
    private static function numbers(array $ring): string
    {
        return StepFile::list(array_map(static fn (int $v): string => (string) ($v + 1), $ring));
    }
}
