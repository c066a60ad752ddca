<?php

declare(strict_types=1);

namespace Plinth\Core\Bodies;

use Plinth\Core\Bodies\Internal\Boxes;
use Plinth\Core\Bodies\Internal\Cell;
use Plinth\Core\Bodies\Internal\Covering;
use Plinth\Core\Bodies\Internal\Cut;
use Plinth\Core\Bodies\Internal\Fills;
use Plinth\Core\Bodies\Internal\Footprints;
use Plinth\Core\Bodies\Internal\HeightPlane;
use Plinth\Core\Bodies\Internal\OpeningForm;
use Plinth\Core\Bodies\Internal\PlainWall;
use Plinth\Core\Bodies\Internal\RailingForm;
use Plinth\Core\Bodies\Internal\Rings;
use Plinth\Core\Bodies\Internal\RoomSpace;
use Plinth\Core\Bodies\Internal\Stack;
use Plinth\Core\Bodies\Internal\StoreyStairs;
use Plinth\Core\Bodies\Internal\Surroundings;
use Plinth\Core\Bodies\Internal\SweepPaths;
use Plinth\Core\Bodies\Internal\Upright;
use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Objects\ObjectForm;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Derivation\Derivation;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;
use Plinth\Core\Plan\Network\Neighbourhood;
use Plinth\Core\Roof\Exception\UnbuildableRoof;
use Plinth\Core\Roof\Roof;
use Plinth\Core\Stairs\StairLimits;
use Plinth\Core\Sweeping\Exception\UnbuildableSweep;
use Plinth\Core\Sweeping\SweptForm;

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
    /** How far what an opening cuts out reaches beyond its wall, mm. */
    private const OUT_MM = 20.0;
    private const SAME_MM = 1e-3;

    private readonly Surroundings $around;
    private readonly Footprints $footprints;
    private readonly Fills $fills;
    private readonly StoreyStairs $stairs;
    private ?Upright $walls = null;
    private ?Upright $partitions = null;
    private ?Upright $under = null;
    /** @var list<string>|null */
    private ?array $underStairs = null;
    private ?RoomSpace $rooms = null;
    /** @var list<Region>|null */
    private ?array $regions = null;

    /** @param list<Storey> $others of the building */
    public function __construct(
        private readonly Storey $storey,
        array $others,
        private readonly Neighbourhood $plan,
        private readonly Derivation $derivation,
        StairLimits $limits,
    ) {
        $this->around = new Surroundings($storey, $others);
        $this->footprints = new Footprints($plan, $derivation);
        $this->fills = new Fills($storey->id);
        $this->stairs = new StoreyStairs($storey, $this->around, $limits);
    }

    /** @return list<Body> */
    public function all(): array
    {
        return [...$this->shell(), ...$this->fills()];
    }

    /** @return list<Body> what is built, without what stands in openings and rooms */
    public function shell(): array
    {
        return [
            ...$this->floors(),
            ...$this->wallsAlone($this->derivation->all()),
            ...$this->columns(),
            ...$this->ceilings(),
            ...$this->stairs(),
            ...$this->roofs(),
            ...$this->shafts(),
            ...$this->dormers(),
            ...$this->sweeps(),
        ];
    }

    /** @return list<Body> frames, leaves and panes, and objects */
    public function fills(): array
    {
        return [...$this->fillsOf($this->derivation->all()), ...$this->objects()];
    }

    /** @return list<Refused> what cannot stand; known once it has been asked for */
    public function refused(): array
    {
        return $this->around->refused();
    }

    /**
     * @param list<string> $ids
     *
     * @return list<Body> walls, and what stands in their openings
     */
    public function walls(array $ids): array
    {
        return [...$this->wallsAlone($ids), ...$this->fillsOf($ids)];
    }

    /**
     * @param list<string> $ids
     *
     * @return list<Body>
     */
    private function wallsAlone(array $ids): array
    {
        $bodies = [];
        foreach ($this->standing($ids) as [$wall, $footprint, $openings]) {
            [$base, $top] = [$this->storey->elevation, $this->top($wall->height ?? ($wall->railing ? RailingForm::HEIGHT_MM : null))];
            $upright = $this->uprightOf($wall);
            $isOwn = null !== $wall->height || $wall->railing;
            $rings = Cut::withoutHoles($footprint);
            $slices = $wall->railing ? RailingForm::open($wall, $base, $top) : [];
            foreach ($openings as $opening) {
                $form = new OpeningForm($wall, $opening, $base);
                array_push($slices, ...$form->isThere() ? $form->cut() : []);
            }
            $levels = 1 === \count($rings) ? $upright->levels($rings[0], $base, $top, $isOwn) : null;
            $mesh = (null === $levels ? null : PlainWall::mesh($wall, $rings[0], $levels[0], $levels[1], $slices))
                ?? Stack::mesh($upright->cells($rings, $base, $top, $isOwn, $wall, $slices));
            if (null !== $mesh) {
                $kind = $wall->enclosing && !$wall->railing ? BodyKind::Wall : BodyKind::Railing;
                $bodies[] = new Body($kind, $wall->id, $this->storey->id, $mesh);
            }
        }

        return $bodies;
    }

    /**
     * Walls with openings as they would stand without them, and what each opening cuts out: that reaches a little out of either face.
     *
     * @return array<string, array{Mesh, array<string, Mesh>}> by wall, and by opening
     */
    public function pierced(): array
    {
        $pierced = [];
        // Whatever ends a wall ends what is cut out of it.
        $alone = new Upright([], []);
        foreach ($this->standing($this->derivation->all()) as [$wall, $footprint, $openings]) {
            [$base, $top] = [$this->storey->elevation, $this->top($wall->height)];
            $cells = $wall->railing || [] === $openings
                ? []
                : $this->uprightOf($wall)->cells(Cut::withoutHoles($footprint), $base, $top, null !== $wall->height);
            $whole = Stack::mesh($cells);
            $heights = null === $whole ? [] : array_column($whole->vertices, 2);
            if (null === $whole || [] === $heights) {
                continue;
            }
            [$low, $high] = [min($heights) - self::OUT_MM, max($heights) + self::OUT_MM];
            $cut = [];
            foreach ($openings as $opening) {
                $form = new OpeningForm($wall, $opening, $base);
                $slices = $form->isThere() ? $form->cut() : [];
                if ([] === $slices) {
                    continue;
                }
                $half = $wall->thickness / 2.0 + self::OUT_MM;
                $ring = $wall->piece($slices[0]->from, $slices[\count($slices) - 1]->to, -$half, $half);
                $mesh = Stack::mesh($alone->cells([$ring], $low, $high, true, $wall, $slices, true));
                if (null !== $mesh) {
                    $cut[$opening->id] = self::through($mesh, $low + self::OUT_MM, $high - self::OUT_MM);
                }
            }
            if ([] !== $cut) {
                $pierced[$wall->id] = [$whole, $cut];
            }
        }

        return $pierced;
    }

    /** What is cut out down to a wall's foot, or up to its top, goes on beyond it: so that no two faces lie on each other. */
    private static function through(Mesh $cut, float $foot, float $top): Mesh
    {
        return new Mesh(array_map(static fn (array $p): array => [$p[0], $p[1], match (true) {
            abs($p[2] - $foot) < self::SAME_MM => $p[2] - self::OUT_MM,
            abs($p[2] - $top) < self::SAME_MM => $p[2] + self::OUT_MM,
            default => $p[2],
        }], $cut->vertices), $cut->faces, $cut->smooth);
    }

    /** @return array<string, Mesh> what rooms hold between floor, walls and what covers them, by the key of their region */
    public function spaces(): array
    {
        $spaces = [];
        foreach ($this->regions() as $region) {
            $mesh = Stack::mesh($this->rooms()->cells($region));
            if (null !== $mesh) {
                $spaces[$region->key] = $mesh;
            }
        }

        return $spaces;
    }

    /**
     * @param list<string> $ids of walls
     *
     * @return list<Body>
     */
    private function fillsOf(array $ids): array
    {
        $bodies = [];
        foreach ($this->standing($ids) as [$wall, , $openings]) {
            [$base, $top] = [$this->storey->elevation, $this->top($wall->height)];
            $upright = $this->uprightOf($wall);
            $clear = [] === $openings ? $top : $upright->clear($wall->box(), $base, $top);
            foreach ($openings as $opening) {
                if ((new OpeningForm($wall, $opening, $base))->isThere()) {
                    array_push($bodies, ...$this->fills->of($wall, $opening, $base, $clear, $upright, $top, null !== $wall->height));
                }
            }
        }

        return $bodies;
    }

    /**
     * @param list<string> $ids
     *
     * @return iterable<array{Wall, non-empty-list<Shape>, list<Opening>}> walls that cover something of the plan, with that, and openings
     */
    private function standing(array $ids): iterable
    {
        $openings = [];
        foreach ($this->plan->openings($ids) as $opening) {
            $openings[$opening->wall][] = $opening;
        }
        array_walk($ids, fn (string $id): ?Wall => $this->wallOf($id));
        foreach ($this->derivation->footprints($ids) as $id => $footprint) {
            $wall = $this->derivation->wall($id);
            if (null !== $wall && [] !== $footprint) {
                yield [$wall, $footprint, $openings[$id] ?? []];
            }
        }
    }

    /** As it was drawn, if it is there. */
    public function wallOf(string $id): ?Wall
    {
        $wall = $this->derivation->wall($id);
        if (null === $wall && null !== ($bounds = $this->plan->bounds())) {
            $this->derivation->look([$bounds]);
            $wall = $this->derivation->wall($id);
        }

        return $wall;
    }

    /** @return list<Body> */
    public function columns(): array
    {
        $bodies = [];
        foreach ($this->plan->columns([-\INF, -\INF, \INF, \INF]) as $column) {
            $rings = Cut::withoutHoles($this->footprints->beside([$column->outline()]));
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
            $open = [...$this->around->voids($this->storey), ...$this->around->passing($floor)];
            $shapes = Rings::less([Rings::of($floor->outline)], $open);
            $top = $this->storey->elevation + $floor->top;
            $cells = self::plates($shapes, $top - $floor->thickness, $top - $floor->finish);
            array_push($bodies, ...$this->body(BodyKind::Floor, $floor->id, $cells));
            if ($floor->finish > 0.0) {
                $rings = array_merge(...array_map(static fn (array $s): array => [$s['outer'], ...$s['holes']], $shapes));
                $cells = self::plates([] === $rings ? [] : $this->footprints->beside($rings, true), $top - $floor->finish, $top);
                array_push($bodies, ...$this->body(BodyKind::Finish, $floor->id, $cells));
            }
        }

        return $bodies;
    }

    /** @return list<Body> */
    public function ceilings(): array
    {
        $bodies = [];
        $above = $this->around->above($this->storey);
        foreach ($this->storey->ceilings as $ceiling) {
            $open = [...(null === $above ? [] : $this->around->voids($above)), ...$this->around->passing($ceiling)];
            $shapes = Rings::less([Rings::of($ceiling->outline)], $open);
            $rings = array_merge(...array_map(static fn (array $s): array => [$s['outer'], ...$s['holes']], $shapes));
            $top = $this->storey->elevation + $ceiling->top;
            $cells = self::plates([] === $rings ? [] : $this->footprints->beside($rings, true, true), $top - $ceiling->thickness, $top);
            array_push($bodies, ...$this->body(BodyKind::Ceiling, $ceiling->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> */
    public function roofs(): array
    {
        $bodies = [];
        foreach ($this->storey->roofs as $roof) {
            $body = $this->around->roof($roof, $this->storey);
            if (null === $body) {
                continue;
            }
            $cells = [];
            foreach ($body->coverings as $covering) {
                $open = $this->around->throughRoof($covering);
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

    /**
     * Stairs as the storey's plan shows them: those that go up from it, then those that arrive there.
     *
     * @return list<ShownStair>
     */
    public function stairsShown(): array
    {
        return $this->stairs->shown();
    }

    /** @return list<Refused> stairs of the storey that cannot stand */
    public function refusedStairs(): array
    {
        return $this->stairs->refused();
    }

    /** @return list<Body> what stairs are made of, beside walls that they are built between, and their rails */
    public function stairs(): array
    {
        $bodies = [];
        foreach ($this->stairs->bodies($this->footprints, $this->wallsUnderStairs()) as [$kind, $id, $cells]) {
            array_push($bodies, ...$this->body($kind, $id, $cells));
        }

        return $bodies;
    }

    /** @return list<string> walls that stand wholly under a stair */
    private function wallsUnderStairs(): array
    {
        return $this->underStairs ??= [] === $this->storey->stairs ? [] : array_values(array_filter(
            $this->derivation->all(),
            function (string $id): bool {
                $wall = $this->wallOf($id);

                return null !== $wall && $this->stairs->covers($wall);
            },
        ));
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
     * @return list<RoomHeight>
     */
    public function heights(): array
    {
        $heights = [];
        foreach ($this->regions() as $region) {
            [$typed, $open] = [$region->room?->height, $this->rooms()->openMm2($region)];
            [$least, $most] = [\INF, 0.0];
            foreach (null === $typed ? $this->rooms()->cells($region) : [] as $cell) {
                foreach ($cell->spans as [$bottom, $over]) {
                    foreach ($cell->rings[0] as [$x, $y]) {
                        $least = min($least, $over->at($x, $y) - $bottom->at($x, $y));
                        $most = max($most, $over->at($x, $y) - $bottom->at($x, $y));
                    }
                }
            }
            $under = $this->stairs->over([$region->polygon, ...$region->holes]);
            $heights[] = null === $typed
                ? new RoomHeight($region->key, min($least, $most), $most, $open, false, ...$under)
                : new RoomHeight($region->key, $typed, $typed, 0.0, true, ...$under);
        }

        return $heights;
    }

    /** A roof's upper side as far as it stands: ridges, hips, valleys and verges with their lengths, facets with their areas. */
    public function roofOver(PitchedRoof $roof): ?Roof
    {
        return $this->around->roof($roof, $this->storey)?->upper;
    }

    /** @return list<Body> */
    public function shafts(): array
    {
        $bodies = [];
        foreach ($this->storey->shafts as $shaft) {
            [$base, $top] = [$this->storey->elevation + $shaft->base, $this->storey->elevation + $shaft->top];
            $cells = [new Cell([Rings::of($shaft->outline)], [[HeightPlane::level($base), HeightPlane::level($top)]])];
            array_push($bodies, ...$this->body(BodyKind::Chimney, $shaft->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> walls that stand on the roof, under a lid */
    public function dormers(): array
    {
        $roofs = $this->around->roofsOf($this->storey);
        $upright = new Upright($roofs, []);
        $sunk = new Upright([], [], array_map(
            static fn (Covering $c): Covering => new Covering($c->rings, $c->bottom->raised(-self::FAR_MM), $c->top),
            $roofs,
        ));
        $bodies = [];
        foreach ($this->storey->dormers as $dormer) {
            $lid = $this->storey->elevation + $dormer->top;
            $inner = Surroundings::inner($dormer);
            $walls = Cut::withoutHoles(Overlay::difference([Rings::of($dormer->outline)], $inner));
            $cells = [...$upright->cells($walls, $lid, $lid), ...$sunk->cells($inner, $lid - $dormer->thickness, $lid)];
            array_push($bodies, ...$this->body(BodyKind::Dormer, $dormer->id, $cells));
        }

        return $bodies;
    }

    /** @return list<Body> profiles along their paths: one for each piece of a path */
    public function sweeps(): array
    {
        return array_map(fn (array $swept): Body => new Body(BodyKind::Swept, $swept[0], $this->storey->id, new Mesh(
            $swept[1]->places,
            array_map(static fn (array $face): array => [$face], $swept[1]->faces),
            $swept[1]->smooth,
        )), $this->swept());
    }

    /** @return list<ShownSweep> the same as the plan shows them */
    public function sweepsShown(): array
    {
        return array_map(fn (array $swept): ShownSweep => new ShownSweep(
            $swept[0],
            $swept[1]->covers,
            $swept[1]->bottom() - $this->storey->elevation,
        ), $this->swept());
    }

    /** @return list<array{string, SweptForm}> */
    private function swept(): array
    {
        $forms = [];
        foreach ($this->storey->sweeps as $sweep) {
            try {
                foreach (SweepPaths::of($sweep, $this->storey, $this->derivation) as [$corners, $rises, $closed, $up]) {
                    $form = SweptForm::of($sweep, $corners, $rises, $closed, $up);
                    $forms[] = [$sweep->id, null === $sweep->face ? $form : $form->upright(...$sweep->face)];
                }
            } catch (UnbuildableSweep|UnbuildableRoof $e) {
                $this->around->refuse($sweep->id, $e->getMessage());
            }
        }

        return $forms;
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

    /** @return list<Region> what its walls enclose */
    public function regions(): array
    {
        return $this->regions ??= $this->derivation->everything()[1];
    }

    /** @internal what rooms of the storey leave free */
    public function rooms(): RoomSpace
    {
        return $this->rooms ??= new RoomSpace($this->storey, $this->around, $this->plan);
    }

    /**
     * @internal
     *
     * @param array{float, float, float, float} $box
     *
     * @return list<string> walls near it
     */
    public function wallsNear(array $box): array
    {
        return array_values(array_map(
            static fn (Wall $w): string => $w->id,
            array_filter($this->plan->lines($box), static fn ($line): bool => $line instanceof Wall),
        ));
    }

    /** What ends a wall. */
    private function uprightOf(Wall $wall): Upright
    {
        if (!\in_array($wall->id, $this->wallsUnderStairs(), true)) {
            return $this->upright($wall->toCeiling);
        }

        return $this->under ??= $this->around->upright($this->storey->ceilings, $this->stairs->coverings());
    }

    /** @param bool $toCeiling whether ceilings end it */
    private function upright(bool $toCeiling): Upright
    {
        if ($toCeiling) {
            return $this->partitions ??= $this->around->upright($this->storey->ceilings);
        }

        return $this->walls ??= $this->around->upright([]);
    }

    private function top(?float $height): float
    {
        return $this->storey->elevation + ($height ?? $this->storey->height);
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
}
