<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Bodies\Internal\Boxes;
use Plinth\Core\Bodies\Internal\Cell;
use Plinth\Core\Bodies\Internal\Covering;
use Plinth\Core\Bodies\Internal\Cut;
use Plinth\Core\Bodies\Internal\Fills;
use Plinth\Core\Bodies\Internal\HeightPlane;
use Plinth\Core\Bodies\Internal\OpeningForm;
use Plinth\Core\Bodies\Internal\Outward;
use Plinth\Core\Bodies\Internal\RoofBody;
use Plinth\Core\Bodies\Internal\Stack;
use Plinth\Core\Bodies\Internal\Upright;
use Plinth\Core\Geometry\Blocks;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Objects\ObjectForm;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Dormer;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Roof\Roof;

/**
 * The bodies of one storey.
 *
 * @phpstan-import-type Ring from Cut
 * @phpstan-import-type Shape from Overlay
 */
final class StoreyBodies
{
    /** Further than anything stands, mm. */
    private const FAR_MM = 1e7;

    /** @var array<string, RoofBody|null> of this storey and others, by id; null where it cannot stand */
    private array $roofs = [];
    /** @var array<string, Refused> */
    private array $refused = [];
    /** of parts of walls, by their numbers */
    private ?Blocks $blocks = null;
    /** @var list<array{ring: Ring, box: array{float, float, float, float}, toCeiling: bool}> parts of walls, and holes in them */
    private array $footprints = [];
    private readonly Fills $fills;
    private ?Upright $walls = null;
    private ?Upright $partitions = null;

    /** @param list<Storey> $others of the building */
    public function __construct(
        private readonly Storey $storey,
        private readonly array $others,
        private readonly Neighbourhood $plan,
        private readonly Derivation $derivation,
    ) {
        $this->fills = new Fills($storey->id);
    }

    /** @return list<Body> */
    public function all(): array
    {
        return [
            ...$this->floors(),
            ...$this->walls($this->derivation->all()),
            ...$this->columns(),
            ...$this->ceilings(),
            ...$this->roofs(),
            ...$this->shafts(),
            ...$this->dormers(),
            ...$this->objects(),
        ];
    }

    /** @return list<Refused> what cannot stand; known once it has been asked for */
    public function refused(): array
    {
        return array_values($this->refused);
    }

    /**
     * @param list<string> $ids
     *
     * @return list<Body> walls, and what stands in their openings
     */
    public function walls(array $ids): array
    {
        $openings = [];
        foreach ($this->plan->openings($ids) as $opening) {
            $openings[$opening->wall][] = $opening;
        }
        $bodies = [];
        foreach ($this->derivation->footprints($ids) as $id => $footprint) {
            $wall = $this->derivation->wall($id);
            if (null !== $wall && [] !== $footprint) {
                array_push($bodies, ...$this->wall($wall, Cut::withoutHoles($footprint), $openings[$id] ?? []));
            }
        }

        return $bodies;
    }

    /** @return list<Body> */
    public function columns(): array
    {
        $bodies = [];
        foreach ($this->plan->columns([-\INF, -\INF, \INF, \INF]) as $column) {
            $rings = Cut::withoutHoles($this->beside([$column->outline()]));
            $cells = $this->upright(false)->cells($rings, $this->storey->elevation, $this->top(null));
            array_push($bodies, ...$this->body(BodyKind::Column, $column->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> and their finish, where that has a thickness of its own */
    public function floors(): array
    {
        $bodies = [];
        foreach ($this->storey->floors as $floor) {
            $shapes = self::less([self::ring($floor->outline)], [...$this->voids($this->storey), ...$this->passing($floor, $this->storey)]);
            $top = $this->storey->elevation + $floor->top;
            $cells = self::plates($shapes, $top - $floor->thickness, $top - $floor->finish);
            array_push($bodies, ...$this->body(BodyKind::Floor, $floor->id, $cells));
            if ($floor->finish > 0.0) {
                $rings = array_merge(...array_map(static fn (array $s): array => [$s['outer'], ...$s['holes']], $shapes));
                $cells = self::plates([] === $rings ? [] : $this->beside($rings, true), $top - $floor->finish, $top);
                array_push($bodies, ...$this->body(BodyKind::Finish, $floor->id, $cells));
            }
        }

        return $bodies;
    }

    /** @return list<Body> */
    public function ceilings(): array
    {
        $bodies = [];
        $above = $this->above($this->storey);
        foreach ($this->storey->ceilings as $ceiling) {
            $open = [...(null === $above ? [] : $this->voids($above)), ...$this->passing($ceiling, $this->storey)];
            $shapes = self::less([self::ring($ceiling->outline)], $open);
            $rings = array_merge(...array_map(static fn (array $s): array => [$s['outer'], ...$s['holes']], $shapes));
            $top = $this->storey->elevation + $ceiling->top;
            $cells = self::plates([] === $rings ? [] : $this->beside($rings, true, true), $top - $ceiling->thickness, $top);
            array_push($bodies, ...$this->body(BodyKind::Ceiling, $ceiling->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> */
    public function roofs(): array
    {
        $bodies = [];
        foreach ($this->storey->roofs as $roof) {
            $body = $this->roof($roof, $this->storey);
            if (null === $body) {
                continue;
            }
            $cells = [];
            foreach ($body->coverings as $covering) {
                $open = $this->throughRoof($covering);
                $shapes = [] === $open
                    ? [['outer' => $covering->rings[0], 'holes' => \array_slice($covering->rings, 1)]]
                    : Overlay::difference($covering->rings, $open);
                foreach ($shapes as $shape) {
                    $cells[] = new Cell([$shape['outer'], ...$shape['holes']], [[$covering->bottom, $covering->top]]);
                }
            }
            array_push($bodies, ...$this->body(BodyKind::Roof, $roof->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> those of one kind and size share their form */
    public function objects(): array
    {
        $forms = [];
        $bodies = [];
        foreach ($this->storey->objects as $o) {
            $key = "$o->kind $o->width $o->depth $o->height";
            $form = new ObjectForm(ObjectKind::from($o->kind), $o->width, $o->depth, $o->height);
            $forms[$key] ??= Stack::mesh(Boxes::cells($form->boxes));
            if (null !== $forms[$key]) {
                $turn = deg2rad($o->degrees);
                $at = new Placement($o->at->x, $o->at->y, $this->storey->elevation + $o->base, cos($turn), sin($turn));
                $bodies[] = new Body(BodyKind::Object, $o->id, $this->storey->id, $forms[$key], $at);
            }
        }

        return $bodies;
    }

    /**
     * How high rooms are: up to their ceiling, the floor above or the roof, and through a void up to what covers that.
     *
     * @param list<Region> $regions of the storey
     *
     * @return list<RoomHeight>
     */
    public function heights(array $regions): array
    {
        $next = $this->above($this->storey);
        $voids = null === $next ? [] : $this->voids($next);
        $below = array_map(fn (Slab $f): Covering => $this->plate($f, $this->storey), $this->storey->floors);
        $upright = new Upright($below, $this->over($this->storey, $this->storey->ceilings));
        $through = null === $next ? $upright : new Upright($below, $this->over($next, $next->ceilings));
        $top = $this->top(null);
        $base = $this->storey->elevation;
        $heights = [];
        foreach ($regions as $region) {
            if (null !== ($typed = $region->room?->height)) {
                $heights[] = new RoomHeight($region->key, $typed, $typed, 0.0, true);
                continue;
            }
            $rings = [$region->polygon, ...$region->holes];
            $open = [] === $voids ? [] : Cut::both($rings, $voids);
            $whole = [['outer' => $region->polygon, 'holes' => $region->holes]];
            $covered = Cut::withoutHoles([] === $open ? $whole : Overlay::difference($rings, $voids));
            $cells = $upright->cells($covered, $base, $top);
            if (null !== $next) {
                array_push($cells, ...$through->cells(Cut::withoutHoles($open), $base, $next->elevation + $next->height));
            }
            [$least, $most] = [\INF, 0.0];
            foreach ($cells as $cell) {
                foreach ($cell->spans as [$bottom, $over]) {
                    foreach ($cell->rings[0] as [$x, $y]) {
                        $least = min($least, $over->at($x, $y) - $bottom->at($x, $y));
                        $most = max($most, $over->at($x, $y) - $bottom->at($x, $y));
                    }
                }
            }
            $heights[] = new RoomHeight($region->key, min($least, $most), $most, Overlay::area($open), false);
        }

        return $heights;
    }

    /** A roof's upper side as far as it stands: ridges, hips, valleys and verges with their lengths, facets with their areas. */
    public function roofOver(PitchedRoof $roof): ?Roof
    {
        return $this->roof($roof, $this->storey)?->upper;
    }

    /** @return list<Body> */
    public function shafts(): array
    {
        $bodies = [];
        foreach ($this->storey->shafts as $shaft) {
            [$base, $top] = [$this->storey->elevation + $shaft->base, $this->storey->elevation + $shaft->top];
            $cells = [new Cell([self::ring($shaft->outline)], [[HeightPlane::level($base), HeightPlane::level($top)]])];
            array_push($bodies, ...$this->body(BodyKind::Chimney, $shaft->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> walls that stand on the roof, under a lid */
    public function dormers(): array
    {
        $roofs = [];
        foreach ($this->storey->roofs as $roof) {
            array_push($roofs, ...($this->roof($roof, $this->storey)->coverings ?? []));
        }
        $upright = new Upright($roofs, []);
        $sunk = new Upright([], [], array_map(
            static fn (Covering $c): Covering => new Covering($c->rings, $c->bottom->raised(-self::FAR_MM), $c->top),
            $roofs,
        ));
        $bodies = [];
        foreach ($this->storey->dormers as $dormer) {
            $lid = $this->storey->elevation + $dormer->top;
            $inner = self::inner($dormer);
            $walls = Cut::withoutHoles(Overlay::difference([self::ring($dormer->outline)], $inner));
            $cells = [...$upright->cells($walls, $lid, $lid), ...$sunk->cells($inner, $lid - $dormer->thickness, $lid)];
            array_push($bodies, ...$this->body(BodyKind::Dormer, $dormer->id, $cells));
        }

        return $bodies;
    }

    /**
     * @param list<Ring> $rings
     * @param list<Opening> $openings
     *
     * @return list<Body>
     */
    private function wall(Wall $wall, array $rings, array $openings): array
    {
        [$base, $top] = [$this->storey->elevation, $this->top($wall->height)];
        $upright = $this->upright($wall->toCeiling);
        $isOwn = null !== $wall->height;
        $slices = [];
        $filled = [];
        foreach ($openings as $opening) {
            $form = new OpeningForm($wall, $opening, $base);
            if ($form->isThere()) {
                $filled[] = $opening;
                array_push($slices, ...$form->cut());
            }
        }
        $cells = $upright->cells($rings, $base, $top, $isOwn, $wall, $slices);
        $bodies = $this->body($wall->enclosing ? BodyKind::Wall : BodyKind::Railing, $wall->id, $cells);
        foreach ($filled as $opening) {
            $clear = $upright->clear($wall->box(), $base, $top);
            array_push($bodies, ...$this->fills->of($wall, $opening, $base, $clear, $upright, $top, $isOwn));
        }

        return $bodies;
    }

    /**
     * @param list<Cell> $cells
     *
     * @return list<Body>
     */
    private function body(BodyKind $kind, string $id, array $cells): array
    {
        $mesh = Stack::mesh($cells);

        return null === $mesh ? [] : [new Body($kind, $id, $this->storey->id, $mesh)];
    }

    /** @param bool $toCeiling whether ceilings end it */
    private function upright(bool $toCeiling): Upright
    {
        if ($toCeiling) {
            return $this->partitions ??= $this->makeUpright($this->storey->ceilings);
        }

        return $this->walls ??= $this->makeUpright([]);
    }

    /** @param list<Slab> $ceilings */
    private function makeUpright(array $ceilings): Upright
    {
        $through = [];
        foreach ($this->others as $other) {
            foreach ($other->roofs as $roof) {
                array_push($through, ...($this->roof($roof, $other)->coverings ?? []));
            }
        }
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                [$from, $to] = [$storey->elevation + $shaft->base, $storey->elevation + $shaft->top];
                $through[] = new Covering([self::ring($shaft->outline)], HeightPlane::level($from), HeightPlane::level($to));
            }
        }
        $below = array_map(fn (Slab $f): Covering => $this->plate($f, $this->storey, true), $this->storey->floors);

        return new Upright($below, $this->over($this->storey, $ceilings), $through);
    }

    /**
     * @param list<Slab> $ceilings of it that count
     *
     * @return list<Covering> what ends what stands on a storey: ceilings, the floor above, its own roofs
     */
    private function over(Storey $storey, array $ceilings): array
    {
        $over = array_map(fn (Slab $c): Covering => $this->plate($c, $storey), $ceilings);
        $next = $this->above($storey);
        if (null !== $next) {
            foreach ($next->floors as $floor) {
                $over[] = $this->plate($floor, $next);
            }
        }
        foreach ($storey->roofs as $roof) {
            array_push($over, ...($this->roof($roof, $storey)->coverings ?? []));
        }

        return $over;
    }

    /** @param bool $isStoodOn whether what stands on it stands under its finish */
    private function plate(Slab $slab, Storey $storey, bool $isStoodOn = false): Covering
    {
        $top = $storey->elevation + $slab->top;
        $holes = [] === $storey->floors || !\in_array($slab, $storey->floors, true) ? [] : array_map(
            static fn (array $ring): array => array_reverse($ring),
            $this->voids($storey),
        );

        return new Covering(
            [self::ring($slab->outline), ...$holes],
            HeightPlane::level($top - $slab->thickness),
            HeightPlane::level($isStoodOn ? $top - $slab->finish : $top),
        );
    }

    private function roof(PitchedRoof $roof, Storey $on): ?RoofBody
    {
        if (!\array_key_exists($roof->id, $this->roofs)) {
            try {
                $this->roofs[$roof->id] = RoofBody::of($roof, $on->elevation);
            } catch (UnbuildableRoof $e) {
                $this->roofs[$roof->id] = null;
                if ($on === $this->storey) {
                    $this->refused[$roof->id] = new Refused($roof->id, $e->getMessage());
                }
            }
        }

        return $this->roofs[$roof->id];
    }

    /** The storey whose floor ends the walls of another. */
    private function above(Storey $storey): ?Storey
    {
        $next = null;
        foreach ([$this->storey, ...$this->others] as $other) {
            if ($other->elevation > $storey->elevation && $other->elevation < ($next->elevation ?? \INF)) {
                $next = $other;
            }
        }

        return $next;
    }

    private function top(?float $height): float
    {
        return $this->storey->elevation + ($height ?? $this->storey->height);
    }

    /**
     * What walls and columns leave of rings.
     *
     * @param non-empty-list<Ring> $rings
     * @param bool $andColumns whether columns stand there, too
     * @param bool $overPartitions whether what ends under ceilings is none of them
     *
     * @return list<Shape>
     */
    private function beside(array $rings, bool $andColumns = false, bool $overPartitions = false): array
    {
        $box = Polygon::bounds(array_merge(...$rings));
        $near = [];
        foreach ($this->footprintsNear($box) as ['ring' => $ring, 'toCeiling' => $toCeiling]) {
            if (!$overPartitions || !$toCeiling) {
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

        return self::less($rings, $near);
    }

    /**
     * @param array{float, float, float, float} $box
     *
     * @return list<array{ring: Ring, box: array{float, float, float, float}, toCeiling: bool}> parts of walls near a box
     */
    private function footprintsNear(array $box): array
    {
        if (null === $this->blocks) {
            $this->blocks = new Blocks();
            foreach ($this->derivation->footprints($this->derivation->all()) as $id => $shapes) {
                $toCeiling = $this->derivation->wall($id)->toCeiling ?? false;
                foreach ($shapes as $shape) {
                    foreach ([$shape['outer'], ...$shape['holes']] as $ring) {
                        $this->blocks->put(\count($this->footprints), Polygon::bounds($ring));
                        $this->footprints[] = ['ring' => $ring, 'box' => Polygon::bounds($ring), 'toCeiling' => $toCeiling];
                    }
                }
            }
        }
        $near = array_map(
            fn (int|string $n): array => $this->footprints[$n],
            $this->blocks->near($box) ?? array_keys($this->footprints),
        );

        return array_values(array_filter(
            $near,
            static fn (array $f): bool => self::overlap($f['box'], $box),
        ));
    }

    /**
     * @param list<Ring> $rings
     * @param list<Ring> $without
     *
     * @return list<Shape>
     */
    private static function less(array $rings, array $without): array
    {
        return [] === $without && 1 === \count($rings)
            ? [['outer' => $rings[0], 'holes' => []]]
            : Overlay::difference($rings, $without);
    }

    /**
     * @param list<Shape> $shapes
     *
     * @return list<Cell>
     */
    private static function plates(array $shapes, float $bottom, float $top): array
    {
        $span = [HeightPlane::level($bottom), HeightPlane::level($top)];

        return array_map(
            static fn (array $s): Cell => new Cell([$s['outer'], ...$s['holes']], [$span]),
            $shapes,
        );
    }

    /** @return list<non-empty-list<array{float, float}>> counter-clockwise */
    private function voids(Storey $storey): array
    {
        return array_map(static fn ($v): array => self::ring($v->outline), $storey->voids);
    }

    /** @return list<non-empty-list<array{float, float}>> shafts of any storey that pass a slab */
    private function passing(Slab $slab, Storey $of): array
    {
        $passing = [];
        $top = $of->elevation + $slab->top;
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                if ($storey->elevation + $shaft->base < $top && $storey->elevation + $shaft->top > $top - $slab->thickness) {
                    $passing[] = self::ring($shaft->outline);
                }
            }
        }

        return $passing;
    }

    /** @return list<Ring> what is cut out of a part of a roof */
    private function throughRoof(Covering $covering): array
    {
        $open = [];
        foreach ([$this->storey, ...$this->others] as $storey) {
            foreach ($storey->shafts as $shaft) {
                // One that ends below the roof leaves it whole.
                if ($storey->elevation + $shaft->base < $covering->highest) {
                    array_push($open, ...self::lower(self::ring($shaft->outline), $covering->bottom, $storey->elevation + $shaft->top));
                }
            }
        }
        foreach ($this->storey->dormers as $dormer) {
            $lid = $this->storey->elevation + $dormer->top - $dormer->thickness;
            foreach (self::inner($dormer) as $ring) {
                // Only where the dormer rises over the roof.
                foreach (self::lower($ring, $covering->top, $lid) as $part) {
                    $open[] = $part;
                }
            }
        }

        return array_values(array_filter($open, static fn (array $ring): bool => $covering->isNear(Polygon::bounds($ring))));
    }

    /**
     * @param Ring $ring
     *
     * @return list<non-empty-list<array{float, float}>> parts of it over which a plane lies lower than a height
     */
    private static function lower(array $ring, HeightPlane $plane, float $height): array
    {
        $parts = [$ring];
        if (!$plane->isLevel()) {
            $over = $plane->at(...$ring[0]) - $height;
            $steep = $plane->dx ** 2 + $plane->dy ** 2;
            $on = [$ring[0][0] - $over * $plane->dx / $steep, $ring[0][1] - $over * $plane->dy / $steep];
            $parts = array_merge(...Cut::line($ring, $on, [-$plane->dy, $plane->dx]));
        }

        return array_values(array_filter($parts, static fn (array $p): bool => $plane->at(...Polygon::labelPoint($p)) < $height));
    }

    /** @return list<non-empty-list<array{float, float}>> a dormer's inside, counter-clockwise; none where its walls take up all of it */
    private static function inner(Dormer $dormer): array
    {
        return Outward::inset(self::ring($dormer->outline), $dormer->thickness);
    }

    /**
     * @param array{float, float, float, float} $a
     * @param array{float, float, float, float} $b
     */
    private static function overlap(array $a, array $b): bool
    {
        return $a[0] < $b[2] && $a[2] > $b[0] && $a[1] < $b[3] && $a[3] > $b[1];
    }

    /** @return non-empty-list<array{float, float}> counter-clockwise */
    private static function ring(Contour $contour): array
    {
        $ring = $contour->points();

        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }
}
