<?php

declare(strict_types=1);

namespace Plinth\Core\Sheets;

use Plinth\Core\Geometry\Overlay;
use Plinth\Core\Geometry\Polygon;
use Plinth\Core\Plan\Derivation\BodyOutline;
use Plinth\Core\Plan\Derivation\DerivedStorey;
use Plinth\Core\Plan\Derivation\Region;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Sheets\Internal\BesideInk;
use Plinth\Core\Sheets\Internal\ChainInk;
use Plinth\Core\Sheets\Internal\FireInk;
use Plinth\Core\Sheets\Internal\FreePaper;
use Plinth\Core\Sheets\Internal\HatchStrokes;
use Plinth\Core\Sheets\Internal\InsideChains;
use Plinth\Core\Sheets\Internal\Marks;
use Plinth\Core\Sheets\Internal\PlaceNames;
use Plinth\Core\Sheets\Internal\PlanMarks;
use Plinth\Core\Sheets\Internal\SheetSigns;
use Plinth\Core\Sheets\Internal\StairFigures;
use Plinth\Core\Sheets\Internal\Stamps;
use Plinth\Core\Sheets\Model\SheetView;
use Plinth\Core\Sheets\Model\Shows;
use Plinth\Core\Sheets\Model\ViewKind;

/**
 * The plan of a storey as it is drawn on a sheet: what is cut is filled and drawn wide, leaves and panes narrow (ISO 128), rooms with their
 * stamps, chains of dimensions round it.
 *
 * @phpstan-type Ring non-empty-list<array{float, float}>
 */
final class PlanSheet
{
    private const CUT_GREY = 0.72;
    /** Pieces of the arc that a leaf swings along. */
    private const SWING = 16;

    /** What is drawn on nothing is dashed, where its wear is shown. */
    private const WORN = [6.0, 4.0];
    /** Rooms of one name are of one colour. */
    private const COLOURS = [
        [0xF6, 0xE7, 0xD2],
        [0xE3, 0xEE, 0xDC],
        [0xDC, 0xEA, 0xF2],
        [0xF3, 0xE0, 0xE0],
        [0xEA, 0xE4, 0xF2],
        [0xF4, 0xF1, 0xD3],
    ];
    private const TAG_MM = 2.5;
    /** What is lower than this is seen and not cut, mm over the floor; common practice, no source. */
    public const CUT_MM = 1200.0;

    /** @var list<InkArea> */
    private array $areas = [];
    /** @var list<InkLine> */
    private array $lines = [];
    /** @var list<InkText> */
    private array $texts = [];
    /** @var list<InkPicture> */
    private array $pictures = [];
    private readonly FreePaper $free;
    private readonly Marks $marks;
    private readonly ?FireInk $fire;

    /**
     * @param array<string, int> $hatches
     * @param list<Ring> $shafts
     */
    private function __construct(
        private readonly Storey $storey,
        private readonly DerivedStorey $derived,
        private readonly PlanOnPaper $paper,
        private readonly Written $written,
        private readonly PlanBeside $beside,
        private readonly SheetView $view,
        private readonly array $hatches,
        private readonly array $shafts,
        ?FireOnPlan $fire,
    ) {
        $this->free = new FreePaper();
        $this->fire = null === $fire ? null : new FireInk($fire, $storey, $paper, $this->free, $written);
        $this->marks = new Marks($view->marks);
    }

    /** @return array{float, float, float, float}|null how far a storey reaches: xmin, ymin, xmax, ymax, mm; null without walls */
    public static function extent(Storey $storey, DerivedStorey $derived): ?array
    {
        $columns = [] === $derived->outlines ? [] : array_map(static fn (Column $c): array => $c->outline(), $storey->columns);
        $points = array_merge([], ...array_map(static fn (BodyOutline $o): array => $o->outer, $derived->outlines), ...$columns);

        return [] === $points ? null : Polygon::bounds($points);
    }

    /**
     * @param SheetView|null $view that says what is shown, and which dimensions were moved or left out; the usual without one
     * @param array<string, int> $hatches patterns of walls, by id
     * @param list<Ring> $shafts that the plan cuts through, of this storey or of others, mm
     * @param FireOnPlan|null $fire what it shows of enclosures and ways out
     */
    public static function of(
        Storey $storey,
        DerivedStorey $derived,
        PlanOnPaper $paper,
        Written $written = new Written(),
        PlanBeside $beside = new PlanBeside(),
        ?SheetView $view = null,
        array $hatches = [],
        array $shafts = [],
        ?FireOnPlan $fire = null,
    ): SheetInk {
        $view ??= new SheetView('', ViewKind::Plan, $storey->id, 0.0, 0.0, shows: Shows::usually(ViewKind::Plan));

        return (new self($storey, $derived, $paper, $written, $beside, $view, $hatches, $shafts, $fire))->drawn();
    }

    private function drawn(): SheetInk
    {
        $this->under();
        $besideShown = new PlanBeside(
            $this->beside->stairs,
            $this->beside->over,
            $this->view->shows(Shows::Drawn) ? $this->beside->lines : [],
            $this->view->shows(Shows::Drawn) ? $this->beside->dimensions : [],
            $this->view->shows(Shows::Notes) ? $this->beside->notes : [],
        );
        // What stands in rooms lies under what is cut.
        $more = BesideInk::of($this->objects(), $besideShown, $this->paper, $this->written);
        $this->draw($more);
        foreach ($more->texts as $text) {
            $this->free->take($text->room());
        }
        foreach ($more->lines as $line) {
            $this->free->line($line->points, $line->closed);
        }
        $this->voids();
        $this->walls();
        $this->openings();
        $this->pillars();
        $sections = $this->view->shows(Shows::Sections) ? $this->beside->sections : [];
        $jogs = PlanMarks::jogs($sections, $this->paper);
        $this->draw($jogs);
        foreach ($jogs->lines as $stroke) {
            $this->free->line($stroke->points);
        }
        $chains = new ChainInk($this->free, $this->paper, $this->written->unit->format(), $this->marks);
        // Signs first: they have few places, figures have many.
        $stairs = new StairFigures($this->free, $this->paper, $this->written, $this->marks);
        $this->draw($stairs->of($this->beside->stairs, $this->view->shows(Shows::Inside)));
        if (null !== $this->fire && $this->view->shows(Shows::Enclosures)) {
            $this->draw($this->fire->exits($this->derived->openings, $this->isInRoom(...)));
        }
        if ($this->view->shows(Shows::Numbers)) {
            $this->numbers();
        }
        if ($this->view->shows(Shows::Dimensions)) {
            $this->outside($chains);
        }
        $this->stamps();
        if (null !== $this->fire && $this->view->shows(Shows::Ways)) {
            $ways = $this->fire->ways();
            $this->draw(new SheetInk($ways->areas, [], $ways->texts));
        }
        if ($this->view->shows(Shows::Inside)) {
            $this->inside($chains);
        }
        if ($this->view->shows(Shows::Levels)) {
            $this->marked('level.'.$this->storey->id, $this->level(...));
        }
        $this->draw(new SheetInk([], $chains->lines, $chains->texts));
        $axes = $this->view->shows(Shows::Axes) ? $this->beside->settingOut->axes : [];
        $extent = [] === $axes && [] === $sections ? null : self::extent($this->storey, $this->derived);
        if (null !== $extent) {
            $this->draw((new PlanMarks($this->free, $this->paper, $this->marks, $extent))->of($axes, $sections, $this->ink()));
        }

        if (null !== $this->fire && $this->view->shows(Shows::Enclosures)) {
            array_push($this->texts, ...$this->fire->classes());
            $this->draw($this->fire->hatches($this->texts));
        }
        if (isset($ways)) {
            $this->draw(new SheetInk([], FireInk::clearOf($ways->lines, $this->texts)));
        }

        return $this->ink();
    }

    /** The drawing that it was traced from, and the rooms' colours. */
    private function under(): void
    {
        $pictures = null !== $this->beside->picture && $this->view->shows(Shows::Ink) ? [$this->beside->picture->on($this->paper)] : [];
        $areas = null !== $this->fire && $this->view->shows(Shows::Enclosures) ? $this->fire->under()->areas : [];
        foreach ($this->view->shows(Shows::Colour) ? $this->derived->regions : [] as $region) {
            $rings = array_map(fn (array $ring): array => array_map($this->paper->of(...), $ring), [$region->polygon, ...$region->holes]);
            $name = $region->room->name ?? '';
            $areas[] = new InkArea($rings, 1.0, '' === $name ? null : self::COLOURS[crc32($name) % \count(self::COLOURS)]);
        }
        $this->draw(new SheetInk($areas, [], [], $pictures));
    }

    /** Columns, and chimneys: cut as walls are. */
    private function pillars(): void
    {
        $rings = [...array_map(static fn (Column $c): array => $c->outline(), $this->storey->columns), ...$this->shafts];
        foreach ($rings as $ring) {
            $ring = array_map($this->paper->of(...), $ring);
            $this->draw(new SheetInk([new InkArea([$ring], self::CUT_GREY)], [new InkLine($ring, InkLine::WIDE, closed: true)]));
            $this->free->line($ring, true);
            $this->free->fill($ring);
        }
    }

    /** What the floor leaves open: its edge, and a cross from corner to corner (common practice, no source). */
    private function voids(): void
    {
        foreach ($this->storey->voids as $void) {
            $ring = array_map($this->paper->of(...), $void->outline->points());
            $this->draw(new SheetInk([], [new InkLine($ring, InkLine::NARROW, closed: true)]));
            $this->free->line($ring, true);
            foreach (4 === \count($ring) ? [[$ring[0], $ring[2]], [$ring[1], $ring[3]]] : [] as $across) {
                $this->draw(new SheetInk([], [new InkLine($across, InkLine::FINE)]));
                $this->free->line($across);
            }
        }
    }

    private function outside(ChainInk $chains): void
    {
        OutsideChains::round(
            array_map(static fn (BodyOutline $o): array => $o->outer, $this->derived->outlines),
            $this->derived->openings,
            array_map(static fn (Region $r): array => $r->polygon, $this->derived->regions),
            array_map(static fn (Column $c): array => $c->outline(), $this->storey->columns),
            new PlaceNames($this->derived->walls),
            $this->paper,
            $chains,
            $this->free,
        );
    }

    /** @return list<PlacedObject> those that are shown: beside the building, where dimensions or exits stand, there is no room for them */
    private function objects(): array
    {
        $extent = self::extent($this->storey, $this->derived);
        $objects = $this->view->shows(Shows::Objects) ? $this->storey->objects : [];

        $isFull = $this->view->shows(Shows::Dimensions) || $this->view->shows(Shows::Enclosures);

        return null === $extent || !$isFull ? $objects : array_values(array_filter(
            $objects,
            static fn (PlacedObject $o): bool => abs(2.0 * $o->at->x - $extent[0] - $extent[2]) < $extent[2] - $extent[0]
                && abs(2.0 * $o->at->y - $extent[1] - $extent[3]) < $extent[3] - $extent[1],
        ));
    }

    private function inside(ChainInk $chains): void
    {
        $through = array_values(array_filter(
            InsideChains::through($this->derived->regions, $this->paper, $this->free),
            fn (array $chain): bool => !$this->marks->isLeftOut(self::insideKey($chain[0], $chain[2])),
        ));
        // Lines first: no figure stands on a line of another chain.
        foreach ($through as $k => [$side, $out, $places]) {
            $through[$k][1] = $out + $chains->movedOut(self::insideKey($side, $places), $side);
            $ends = array_map(
                fn (array $p): array => $this->paper->of($side->at($p[0], $through[$k][1])),
                [$places[0], $places[\count($places) - 1]],
            );
            $this->free->line($ends);
        }
        foreach ($through as [$side, $out, $places]) {
            $chains->chain($side, $places, $out, self::insideKey($side, $places), true);
        }
    }

    /** @param non-empty-list<array{float, string}> $places */
    private static function insideKey(ChainSide $side, array $places): string
    {
        return 'inside.'.$side->value.'.'.substr(hash('xxh64', $places[0][1].'>'.$places[\count($places) - 1][1]), 0, 12);
    }

    private function stamps(): void
    {
        if (!$this->view->shows(Shows::Stamps)) {
            return;
        }
        foreach ($this->derived->regions as $region) {
            $key = 'stamp.'.($region->room->id ?? substr(hash('xxh64', implode('+', $region->walls)), 0, 12));
            $this->marked($key, fn (): SheetInk => new SheetInk([], [], Stamps::in([[
                array_map($this->paper->of(...), $region->polygon),
                $this->paper->of($region->label),
                trim(($region->room->number ?? '').' '.($region->room->name ?? '')),
                $this->written->area($region->netAreaMm2),
            ]], $this->free)));
        }
    }

    /** Numbers of doors and windows beside their openings, in a room or outside. */
    private function numbers(): void
    {
        $rated = $this->view->shows(Shows::Enclosures) ? array_column($this->storey->openings, 'rated', 'id') : [];
        foreach ($this->derived->openings as $id => $ring) {
            $number = trim(($this->beside->numbers[$id] ?? '').' '.($rated[$id] ?? ''));
            if ('' === $number || \count($ring) < 4) {
                continue;
            }
            $at = array_map($this->paper->of(...), $ring);
            // Near right, far right, far left, near left; with curved faces there are more between.
            $half = intdiv(\count($at), 2);
            [$right, $left] = [self::middle($at[0], $at[$half - 1]), self::middle($at[$half], $at[\count($at) - 1])];
            [$dx, $dy] = [$right[0] - $left[0], $right[1] - $left[1]];
            $long = max(1e-9, hypot($dx, $dy));
            $this->marked("number.$id", function () use ($number, $right, $left, $dx, $dy, $long): SheetInk {
                $text = $this->tag($number, $right, $left, [$dx / $long, $dy / $long]);

                return new SheetInk([], [], null === $text ? [] : [$text]);
            });
        }
    }

    /**
     * A number outside the building, or in a room, as near to its opening as there is place.
     *
     * @param array{float, float} $right the middle of its opening's right face
     * @param array{float, float} $left and of its left one
     * @param array{float, float} $across a unit vector from left to right
     */
    private function tag(string $number, array $right, array $left, array $across): ?InkText
    {
        $wide = (new InkText(0.0, 0.0, $number, self::TAG_MM))->width();
        $beside = static fn (float $way, float $off, float $along): array => [
            ($way > 0.0 ? $right : $left)[0] + $way * $off * $across[0] - $along * $across[1],
            ($way > 0.0 ? $right : $left)[1] + $way * $off * $across[1] + $along * $across[0],
        ];
        $isInRoom = fn (float $way): bool => $this->isInRoom($beside($way, 1.0, 0.0));
        $ways = !$isInRoom(-1.0) && $isInRoom(1.0) ? [-1.0, 1.0] : [1.0, -1.0];
        foreach ([0.0, 3.0, -3.0, 6.0, -6.0] as $along) {
            foreach ($ways as $way) {
                foreach ([1.0, 2.5, 4.5] as $more) {
                    // As far off that the words' box is clear of the wall's face, whichever way it runs.
                    [$x, $y] = $beside($way, $more + abs($across[0]) * $wide / 2.0 + abs($across[1]) * self::TAG_MM / 2.0, $along);
                    $text = new InkText($x, $y + self::TAG_MM / 2.0, $number, self::TAG_MM, 'middle');
                    if ($this->free->isFree($text->room(), 0.3)) {
                        return $text;
                    }
                }
            }
        }

        return null;
    }

    /** @param array{float, float} $p mm of paper */
    private function isInRoom(array $p): bool
    {
        [$x, $y] = [($p[0] - $this->paper->x) * $this->paper->scale, ($this->paper->y - $p[1]) * $this->paper->scale];
        foreach ($this->derived->regions as $region) {
            if (Polygon::contains($region->polygon, $x, $y)) {
                return true;
            }
        }

        return false;
    }

    /** How high the floor lies, in the largest room that has the room for it. */
    private function level(): SheetInk
    {
        $regions = $this->derived->regions;
        usort($regions, static fn (Region $a, Region $b): int => $b->netAreaMm2 <=> $a->netAreaMm2);
        foreach (\array_slice($regions, 0, 3) as $region) {
            $ring = array_map($this->paper->of(...), $region->polygon);
            foreach (Stamps::places($ring, $this->paper->of($region->label)) as [$x, $y]) {
                $sign = SheetSigns::level($x, $y, $this->written->level($this->storey->elevation), true);
                $box = $sign->bounds();
                $room = null === $box ? [] : [[$box[0], $box[1]], [$box[2], $box[1]], [$box[2], $box[3]], [$box[0], $box[3]]];
                if ([] !== $room && $this->free->isFree($room, 0.6) && Stamps::isInside($room, $ring)) {
                    return $sign;
                }
            }
        }

        return new SheetInk();
    }

    /**
     * @param string $key of what it says, which stays the same when the plan is edited
     * @param callable(): SheetInk $find where it would stand by itself
     */
    private function marked(string $key, callable $find): void
    {
        $ink = $this->marks->put($key, $find);
        $this->draw($ink);
        foreach ($ink->texts as $text) {
            $this->free->take($text->room());
        }
    }

    private function draw(SheetInk $ink): void
    {
        array_push($this->areas, ...$ink->areas);
        array_push($this->lines, ...$ink->lines);
        array_push($this->texts, ...$ink->texts);
        array_push($this->pictures, ...$ink->pictures);
    }

    private function ink(): SheetInk
    {
        return new SheetInk($this->areas, $this->lines, $this->texts, $this->pictures);
    }

    private function walls(): void
    {
        $isWorn = fn (string $id): bool => $this->view->shows(Shows::Wear) && isset($this->beside->freeHand[$id]);
        $cutOuts = $this->derived->cutOuts();
        [$bodies, $worn, $hatched, $beside] = [[], [], [], []];
        foreach ($this->storey->walls as $wall) {
            $shape = $this->derived->walls[$wall->id] ?? null;
            foreach ($shape?->bodies() ?? [] as $body) {
                if (!$wall->enclosing) {
                    $isCut = !$wall->railing && ($wall->height ?? \INF) > self::CUT_MM;
                    $isCut ? $beside[] = $body : $this->low($body);
                    continue;
                }
                $isWorn($wall->id) ? $worn[] = $body : $bodies[] = $body;
                $pattern = $this->view->shows(Shows::Hatch) && !$isWorn($wall->id) ? $this->hatches[$wall->id] ?? null : null;
                if (null !== $pattern) {
                    $hatched[$pattern][] = $body;
                }
                $ring = array_map($this->paper->of(...), $body);
                // Words stand neither on walls nor in their openings.
                $this->free->fill($ring);
                $this->free->line($ring, true);
            }
        }
        if ([] === $worn) {
            // The derivation has united them already.
            $holes = array_merge([], ...array_map(static fn (BodyOutline $o): array => $o->holes, $this->derived->outlines));
            $bodies = array_map(static fn (BodyOutline $o): array => $o->outer, $this->derived->outlines);
            $this->cut($bodies, [...$cutOuts, ...array_map(self::counterClockwise(...), $holes)], []);
        } else {
            $this->cut($bodies, $cutOuts, []);
            $this->cut($worn, $cutOuts, self::WORN);
        }
        $this->cut($beside, $cutOuts, []);
        foreach ($hatched as $pattern => $of) {
            foreach (Overlay::difference($of, $cutOuts) as ['outer' => $outer, 'holes' => $holes]) {
                $rings = array_map(fn (array $ring): array => array_map($this->paper->of(...), $ring), [$outer, ...$holes]);
                $this->draw(HatchStrokes::filling($rings, $pattern));
            }
        }
    }

    /** @param Ring $body of a railing or a low wall: it is seen, and not cut */
    private function low(array $body): void
    {
        $ring = array_map($this->paper->of(...), $body);
        $this->draw(new SheetInk([], [new InkLine($ring, InkLine::NARROW, closed: true)]));
        $this->free->line($ring, true);
        $this->free->fill($ring);
    }

    /**
     * @param list<Ring> $bodies
     * @param list<Ring> $without what is not cut: openings, and what bodies stand round
     * @param list<float> $dashes of what is not sure, and is not filled
     */
    private function cut(array $bodies, array $without, array $dashes): void
    {
        foreach ([] === $bodies ? [] : Overlay::difference($bodies, $without) as ['outer' => $outer, 'holes' => $holes]) {
            $rings = array_map(fn (array $ring): array => array_map($this->paper->of(...), $ring), [$outer, ...$holes]);
            $this->draw(new SheetInk([] === $dashes ? [new InkArea($rings, self::CUT_GREY)] : [], array_map(
                static fn (array $ring): InkLine => new InkLine($ring, [] === $dashes ? InkLine::WIDE : InkLine::NARROW, $dashes, true),
                $rings,
            )));
        }
    }

    private function openings(): void
    {
        foreach ($this->storey->openings as $opening) {
            if (isset($this->derived->openings[$opening->id])) {
                $this->opening($opening, $this->derived->openings[$opening->id]);
            }
        }
    }

    /**
     * @param Ring $ring
     *
     * @return Ring
     */
    private static function counterClockwise(array $ring): array
    {
        return Polygon::area($ring) < 0.0 ? array_reverse($ring) : $ring;
    }

    /** @param Ring $piece along the right face from near to far, and back along the left */
    private function opening(Opening $opening, array $piece): void
    {
        $half = intdiv(\count($piece), 2);
        if ($half < 2) {
            return;
        }
        [$right, $left] = [\array_slice($piece, 0, $half), array_reverse(\array_slice($piece, $half))];
        [$nearRight, $farRight, $farLeft, $nearLeft] = [$right[0], $right[$half - 1], $left[\count($left) - 1], $left[0]];
        if (OpeningKind::Window === $opening->kind) {
            $pane = \count($right) === \count($left) ? array_map(self::middle(...), $right, $left) : [
                self::middle($nearRight, $nearLeft),
                self::middle($farRight, $farLeft),
            ];
            foreach ([$right, $left, $pane] as $line) {
                $this->stroke($line, InkLine::NARROW);
            }
        }
        if (OpeningKind::Door !== $opening->kind) {
            return;
        }
        $swingsLeft = 'left' === $opening->swing;
        [$near, $far] = $swingsLeft ? [$nearLeft, $farLeft] : [$nearRight, $farRight];
        if ('sliding' === $opening->leaf) {
            // Beside the wall, slid along it by its own width.
            $this->stroke([$near, self::part($near, $far, -1.0)], InkLine::MEDIUM);

            return;
        }
        $turn = $swingsLeft ? 1.0 : -1.0;
        $leaves = 'double' === $opening->leaf
            ? [[$near, self::middle($near, $far), $turn], [$far, self::middle($near, $far), -$turn]]
            : ['left' === $opening->hand ? [$near, $far, $turn] : [$far, $near, -$turn]];
        foreach ($leaves as [$hinge, $latch, $way]) {
            $swing = [];
            for ($k = 0; $k <= self::SWING; ++$k) {
                $angle = $way * \M_PI_2 * $k / self::SWING;
                [$dx, $dy] = [$latch[0] - $hinge[0], $latch[1] - $hinge[1]];
                $swing[] = [$hinge[0] + $dx * cos($angle) - $dy * sin($angle), $hinge[1] + $dx * sin($angle) + $dy * cos($angle)];
            }
            $this->stroke($swing, InkLine::FINE, 4);
            $this->stroke([$hinge, $swing[self::SWING]], InkLine::MEDIUM);
        }
    }

    /**
     * @param list<array{float, float}> $points mm of the plan
     * @param int $each of so many points one is enough to keep words off
     */
    private function stroke(array $points, float $width, int $each = 1): void
    {
        $line = array_map($this->paper->of(...), $points);
        $this->lines[] = new InkLine($line, $width);
        $this->free->line(array_values(array_filter($line, static fn (int $k): bool => 0 === $k % $each, \ARRAY_FILTER_USE_KEY)));
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function middle(array $a, array $b): array
    {
        return self::part($a, $b, 0.5);
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     *
     * @return array{float, float}
     */
    private static function part(array $a, array $b, float $part): array
    {
        return [$a[0] + $part * ($b[0] - $a[0]), $a[1] + $part * ($b[1] - $a[1])];
    }
}
