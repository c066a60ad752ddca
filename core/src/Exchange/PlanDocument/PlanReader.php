<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PlanDocument;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Objects\ObjectKind;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\DoorExit;
use Plinth\Core\Plan\Model\Dormer;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\Finish;
use Plinth\Core\Plan\Model\FinishPattern;
use Plinth\Core\Plan\Model\FloorVoid;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningHead;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\PitchedRoof;
use Plinth\Core\Plan\Model\PlacedObject;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Shaft;
use Plinth\Core\Plan\Model\Slab;
use Plinth\Core\Plan\Model\Stair;
use Plinth\Core\Plan\Model\StairBuild;
use Plinth\Core\Plan\Model\StairLimit;
use Plinth\Core\Plan\Model\StairMeasure;
use Plinth\Core\Plan\Model\StairPosts;
use Plinth\Core\Plan\Model\StairTurn;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Surface;
use Plinth\Core\Plan\Model\SurfaceOn;
use Plinth\Core\Plan\Model\Sweep;
use Plinth\Core\Plan\Model\SweepAlong;
use Plinth\Core\Plan\Model\Wall;

/** Reads a plan document (docs/plan-format.md). Unknown keys are refused with their path. */
final class PlanReader
{
    public const FORMAT = 'zesty-plinth/plan';
    /** what is written; earlier ones are read as well */
    public const VERSION = 2;

    private const STOREY = ['id', 'name', 'elevation', 'height', 'walls', 'openings', 'dividers', 'columns', 'rooms', 'figures'];
    private const WALL = ['id', 'from', 'to', 'thickness', 'line', 'height', 'rise', 'enclosing'];
    private const RATED = 40;
    private const OPENING = ['id', 'wall', 'kind', 'offset', 'width', 'sill', 'height', 'hand', 'swing', 'leaf'];
    /** what came with version 2 */
    private const BODIES = ['floors', 'ceilings', 'voids', 'roofs', 'chimneys', 'dormers', 'objects', 'surfaces', 'stairs', 'sweeps'];

    /** @var array<string, true> ids of finishes */
    private array $finishes = [];

    /** @var array<string, string> by id of opening */
    private array $numbers = [];
    /** @var array<string, string> by id of wall */
    private array $buildUps = [];

    private function __construct(private readonly int $version)
    {
    }

    /** @throws UnreadableDocument with the path of what breaks the format */
    public static function read(string $json): Plan
    {
        $document = JsonValue::parse($json)->object([
            'format',
            'version',
            'units',
            'remarks',
            'finishes',
            'stairLimits',
            'fire',
            'sides',
            'sheets',
            'storeys',
        ]);
        $document->get('format')->word([self::FORMAT]);
        $version = (int) $document->get('version')->number();
        if ($version < 1 || $version > self::VERSION || (float) $version !== $document->get('version')->number()) {
            throw UnreadableDocument::outOfRange('version', \sprintf('1 or %d', self::VERSION));
        }
        $reader = new self($version);
        $document->object([
            'format',
            'version',
            'units',
            'remarks',
            ...$reader->since2(['finishes', 'stairLimits', 'fire', 'sides', 'sheets']),
            'storeys',
        ]);
        $document->get('units')->word(['mm']);
        foreach ($document->list('remarks') as $remark) {
            $remark->text();
        }
        $ids = [];
        $finishes = $reader->each($document, 'finishes', $ids, self::finish(...));
        foreach ($finishes as $finish) {
            $reader->finishes[$finish->id] = true;
        }

        $limits = array_map(self::stairLimit(...), $document->list('stairLimits'));
        $storeys = [];
        foreach ($document->list('storeys') as $storey) {
            $storeys[] = $reader->storey($storey, $ids);
        }
        foreach ($storeys as $i => $storey) {
            foreach ($storey->stairs as $k => $stair) {
                if (null !== $stair->reaches && !\in_array($stair->reaches, array_column($storeys, 'id'), true)) {
                    throw UnreadableDocument::outOfRange("storeys/$i/stairs/$k/reaches", 'a storey of this document');
                }
            }
        }

        $fire = FireReader::read($document->optional('fire'), $storeys, static function (JsonValue $thing) use (&$ids): string {
            return self::id($thing, $ids);
        });

        return new Plan($storeys, $finishes, $limits, $reader->numbers, $reader->buildUps, $fire);
    }

    /** @param array<string, true> $ids of the whole document */
    private function storey(JsonValue $storey, array &$ids): Storey
    {
        $storey->object([...self::STOREY, ...$this->since2(self::BODIES)]);
        $id = self::id($storey, $ids);
        $byId = [];
        foreach ($storey->list('walls') as $w) {
            $wall = $this->wall($w, $ids);
            $byId[$wall->id] = $wall;
        }
        $openings = [];
        foreach ($storey->list('openings') as $o) {
            $openings[] = $this->opening($o, $byId, $ids);
        }
        $rooms = [];
        foreach ($storey->list('rooms') as $r) {
            $rooms[] = self::room($r, $ids);
        }

        $dividers = [];
        foreach ($storey->list('dividers') as $d) {
            $dividers[] = self::divider($d, $ids);
        }
        $columns = [];
        foreach ($storey->list('columns') as $c) {
            $c->object(['id', 'at', 'width', 'depth', 'round']);
            $columns[] = new Column(
                self::id($c, $ids),
                $c->get('at')->point(),
                $c->get('width')->positive(20_000.0),
                $c->get('depth')->positive(20_000.0),
                $c->optional('round')?->boolean() ?? false,
            );
        }
        $figures = [];
        foreach ($storey->list('figures') as $f) {
            $figures[] = self::figure($f, $byId, $ids);
        }

        return new Storey(
            $id,
            $storey->optional('name')?->text() ?? '',
            $storey->optional('elevation')?->number() ?? 0.0,
            $storey->optional('height')?->positive() ?? 2700.0,
            array_values($byId),
            $openings,
            $rooms,
            $dividers,
            $columns,
            $figures,
            $this->each($storey, 'floors', $ids, self::slab(...)),
            $this->each($storey, 'ceilings', $ids, self::slab(...)),
            $this->each($storey, 'voids', $ids, self::void(...)),
            $this->each($storey, 'roofs', $ids, self::roof(...)),
            $this->each($storey, 'chimneys', $ids, self::chimney(...)),
            $this->each($storey, 'dormers', $ids, self::dormer(...)),
            $this->each($storey, 'objects', $ids, self::object(...)),
            $this->each($storey, 'surfaces', $ids, fn (JsonValue $s, string $id): Surface => $this->surface($s, $id, [
                'room' => array_map(static fn (Room $r): string => $r->id, $rooms),
                'wall' => array_keys($byId),
            ])),
            $this->each($storey, 'stairs', $ids, self::stair(...)),
            $this->each($storey, 'sweeps', $ids, static fn (JsonValue $s, string $id): Sweep => self::sweep($s, $id, $storey)),
        );
    }

    /**
     * @param list<string> $keys
     *
     * @return list<string> none of an earlier document
     */
    private function since2(array $keys): array
    {
        return $this->version < 2 ? [] : $keys;
    }

    /**
     * @template T
     *
     * @param array<string, true> $ids
     * @param callable(JsonValue, string): T $read
     *
     * @return list<T>
     */
    private function each(JsonValue $storey, string $key, array &$ids, callable $read): array
    {
        $all = [];
        foreach ($this->version < 2 ? [] : $storey->list($key) as $thing) {
            $all[] = $read($thing, self::id($thing, $ids));
        }

        return $all;
    }

    private static function slab(JsonValue $slab, string $id): Slab
    {
        $slab->object(['id', 'outline', 'rises', 'top', 'thickness', 'finish']);
        $thickness = $slab->get('thickness')->positive(Wall::THICKEST_MM);
        $finish = $slab->optional('finish')?->notNegative() ?? 0.0;
        if ($finish > $thickness) {
            throw UnreadableDocument::outOfRange($slab->at.'/finish', 'at most its thickness, of which it is the uppermost part');
        }

        return new Slab($id, self::contour($slab), $slab->optional('top')?->number() ?? 0.0, $thickness, $finish);
    }

    private static function void(JsonValue $void, string $id): FloorVoid
    {
        $void->object(['id', 'outline', 'rises']);

        return new FloorVoid($id, self::contour($void));
    }

    private static function chimney(JsonValue $chimney, string $id): Shaft
    {
        $chimney->object(['id', 'outline', 'rises', 'base', 'top']);
        [$base, $top] = [$chimney->optional('base')?->number() ?? 0.0, $chimney->get('top')->number()];
        if ($top <= $base) {
            throw UnreadableDocument::outOfRange($chimney->at.'/top', 'above its base');
        }

        return new Shaft($id, self::contour($chimney), $base, $top);
    }

    private static function dormer(JsonValue $dormer, string $id): Dormer
    {
        $dormer->object(['id', 'outline', 'rises', 'top', 'thickness']);

        $thickness = $dormer->get('thickness')->positive(Wall::THICKEST_MM);

        return new Dormer($id, self::contour($dormer), $dormer->get('top')->number(), $thickness);
    }

    private static function object(JsonValue $object, string $id): PlacedObject
    {
        $object->object(['id', 'kind', 'at', 'degrees', 'width', 'depth', 'height', 'base']);

        return new PlacedObject(
            $id,
            $object->get('kind')->choice(ObjectKind::class)->value,
            $object->get('at')->point(),
            fmod($object->optional('degrees')?->number() ?? 0.0, 360.0),
            $object->get('width')->positive(20_000.0),
            $object->get('depth')->positive(20_000.0),
            $object->get('height')->positive(20_000.0),
            $object->optional('base')?->number() ?? 0.0,
        );
    }

    private static function sweep(JsonValue $sweep, string $id, JsonValue $storey): Sweep
    {
        $sweep->object(['id', 'profile', 'along', 'path', 'rises', 'closed', 'of', 'level', 'inward', 'face']);
        $along = $sweep->get('along')->choice(SweepAlong::class);
        $of = $sweep->optional('of')?->text();
        $roofs = array_map(static fn (JsonValue $r): string => $r->get('id')->text(), $storey->list('roofs'));
        if (SweepAlong::Eaves === $along && !\in_array($of, $roofs, true)) {
            throw UnreadableDocument::outOfRange($sweep->at.'/of', 'a roof of this storey');
        }
        $path = array_map(static fn (JsonValue $p): Point => $p->point(), $sweep->list('path'));
        if (SweepAlong::Path === $along && \count($path) < 2) {
            throw UnreadableDocument::outOfRange($sweep->at.'/path', 'two places or more');
        }
        $face = array_map(static fn (JsonValue $p): Point => $p->point(), $sweep->list('face'));
        if ([] !== $face && (2 !== \count($face) || $face[0]->distanceTo($face[1]) < Wall::JOIN_MM)) {
            throw UnreadableDocument::outOfRange($sweep->at.'/face', 'two places that lie apart');
        }

        return new Sweep(
            $id,
            self::contour($sweep->get('profile')->object(['outline', 'rises']), 2),
            $along,
            $path,
            array_map(static fn (JsonValue $r): float => $r->number(), $sweep->list('rises')),
            $sweep->optional('closed')?->boolean() ?? false,
            $of,
            $sweep->optional('level')?->number() ?? 0.0,
            $sweep->optional('inward')?->boolean() ?? false,
            2 === \count($face) ? $face : null,
        );
    }

    private static function stair(JsonValue $stair, string $id): Stair
    {
        $stair->object([
            'id', 'line', 'rises', 'width', 'risers', 'treads', 'turn', 'winders', 'build', 'thickness', 'nosing', 'rails', 'railHeight',
            'headroom', 'reaches', 'posts', 'postsBy',
        ]);
        $posts = $stair->optional('posts')?->choice(StairPosts::class) ?? StairPosts::Gap;
        $rails = $stair->optional('rails')?->word(['left', 'right', 'both']);

        return new Stair(
            $id,
            array_map(static fn (JsonValue $p): Point => $p->point(), $stair->list('line')),
            array_map(static fn (JsonValue $r): float => $r->number(), $stair->list('rises')),
            $stair->get('width')->positive(Stair::WIDEST_MM),
            $stair->get('risers')->count(),
            array_map(static fn (JsonValue $t): Contour => self::contour($t->object(['outline', 'rises'])), $stair->list('treads')),
            $stair->optional('turn')?->choice(StairTurn::class) ?? StairTurn::Landing,
            $stair->optional('winders')?->count() ?? 3,
            $stair->optional('build')?->choice(StairBuild::class) ?? StairBuild::Slab,
            $stair->optional('thickness')?->positive(2000.0) ?? 150.0,
            $stair->optional('nosing')?->notNegative() ?? 0.0,
            \in_array($rails, ['left', 'both'], true),
            \in_array($rails, ['right', 'both'], true),
            $stair->optional('railHeight')?->positive(5000.0) ?? 900.0,
            $stair->optional('headroom')?->positive(10_000.0) ?? 2000.0,
            $stair->optional('reaches')?->text(),
            $posts,
            $stair->optional('postsBy')?->positive(StairPosts::Gap === $posts ? 5000.0 : Stair::MOST_RISERS) ?? Stair::GAP_MM,
        );
    }

    private static function stairLimit(JsonValue $limit): StairLimit
    {
        $limit->object(['measure', 'least', 'most', 'standing']);
        [$least, $most] = [$limit->optional('least')?->positive(10_000.0), $limit->optional('most')?->positive(10_000.0)];
        if ((null === $least && null === $most) || ($least ?? 0.0) > ($most ?? \INF)) {
            throw UnreadableDocument::outOfRange($limit->at, 'a least, a most, or both in this order');
        }

        return new StairLimit($limit->get('measure')->choice(StairMeasure::class), $least, $most, $limit->get('standing')->text(200));
    }

    private static function finish(JsonValue $finish, string $id): Finish
    {
        $finish->object(['id', 'name', 'colour', 'pattern', 'width', 'height', 'joint', 'bond']);
        $colour = $finish->get('colour');
        if (1 !== preg_match('/^#[0-9a-f]{6}$/', $colour->text())) {
            throw UnreadableDocument::outOfRange($colour->at, '# and six digits from 0 to f');
        }
        $pattern = $finish->optional('pattern')?->choice(FinishPattern::class) ?? FinishPattern::Plain;
        $isPlain = FinishPattern::Plain === $pattern;

        return new Finish(
            $id,
            $finish->optional('name')?->text() ?? '',
            $colour->text(),
            $pattern,
            $isPlain ? 0.0 : $finish->get('width')->positive(Finish::LARGEST_MM),
            FinishPattern::Tiles === $pattern
                ? $finish->get('height')->positive(Finish::LARGEST_MM)
                : (float) $finish->optional('height')?->positive(Finish::LARGEST_MM),
            $finish->optional('joint')?->notNegative() ?? 0.0,
            $finish->optional('bond')?->word(array_keys(Finish::BONDS)) ?? 'stacked',
        );
    }

    /** @param array{room: list<string>, wall: list<string>} $there ids of what can have one */
    private function surface(JsonValue $surface, string $id, array $there): Surface
    {
        $on = $surface->get('on')->choice(SurfaceOn::class);
        $of = $on->isOfRoom() ? 'room' : 'wall';
        $upright = SurfaceOn::Walls === $on || !$on->isOfRoom();
        $surface->object([
            'id', 'finish', 'on', $of, ...$upright ? ['bottom', 'top'] : [], ...'wall' === $of ? ['start', 'end'] : [], 'origin', 'degrees',
        ]);
        $finish = $surface->get('finish');
        if (!isset($this->finishes[$finish->text()])) {
            throw UnreadableDocument::unknownReference($finish->at, 'finish');
        }
        if (!\in_array($surface->get($of)->text(), $there[$of], true)) {
            throw UnreadableDocument::unknownReference($surface->get($of)->at, $of);
        }

        return new Surface(
            $id,
            $finish->text(),
            $on,
            $surface->get($of)->text(),
            $surface->optional('bottom')?->number(),
            $surface->optional('top')?->number(),
            $surface->optional('start')?->number(),
            $surface->optional('end')?->number(),
            $surface->optional('origin')?->point() ?? new Point(0.0, 0.0),
            fmod($surface->optional('degrees')?->number() ?? 0.0, 360.0),
        );
    }

    private static function roof(JsonValue $roof, string $id): PitchedRoof
    {
        $roof->object(['id', 'outline', 'pitches', 'overhangs', 'eaves', 'thickness']);
        $corners = self::contour($roof)->corners;
        $pitches = array_map(static fn (JsonValue $p): ?float => $p->isNull() ? null : $p->notNegative(), $roof->get('pitches')->items());
        $overhangs = array_map(static fn (JsonValue $o): float => $o->notNegative(), $roof->list('overhangs'));
        foreach (['pitches' => $pitches, 'overhangs' => $overhangs] as $key => $of) {
            if (\count($of) !== \count($corners) && ('pitches' === $key || [] !== $of)) {
                throw UnreadableDocument::outOfRange($roof->at."/$key", 'as many as its outline has corners');
            }
        }

        return new PitchedRoof(
            $id,
            $corners,
            $pitches,
            [] === $overhangs ? array_fill(0, \count($corners), 0.0) : $overhangs,
            $roof->get('eaves')->number(),
            $roof->get('thickness')->positive(Wall::THICKEST_MM),
        );
    }

    /** @param int $least corners: two can be joined by arcs */
    private static function contour(JsonValue $thing, int $least = 3): Contour
    {
        $corners = array_map(static fn (JsonValue $p): Point => $p->point(), $thing->get('outline')->items());
        if (\count($corners) < max(1, $least)) {
            throw UnreadableDocument::outOfRange($thing->at.'/outline', 2 === $least ? 'two corners or more' : 'three corners or more');
        }

        return new Contour($corners, array_map(static fn (JsonValue $r): float => $r->number(), $thing->list('rises')));
    }

    /** @param array<string, true> $ids */
    private function wall(JsonValue $wall, array &$ids): Wall
    {
        $wall->object([...self::WALL, ...$this->since2(['toCeiling', 'railing', 'buildUp'])]);
        $read = new Wall(
            self::id($wall, $ids),
            $wall->get('from')->point(),
            $wall->get('to')->point(),
            $wall->get('thickness')->positive(Wall::THICKEST_MM),
            $wall->optional('line')?->choice(Line::class) ?? Line::Centre,
            $wall->optional('height')?->positive(),
            self::rise($wall),
            $wall->optional('enclosing')?->boolean() ?? true,
            $wall->optional('toCeiling')?->boolean() ?? false,
            $wall->optional('railing')?->boolean() ?? false,
        );
        if ($read->from->distanceTo($read->to) <= Wall::JOIN_MM) {
            throw UnreadableDocument::outOfRange(
                $wall->at.'/to',
                \sprintf('more than %g mm away from its start: a wall needs a length', Wall::JOIN_MM),
            );
        }

        $buildUp = $wall->optional('buildUp')?->text(120) ?? '';
        $this->buildUps += '' === $buildUp ? [] : [$read->id => $buildUp];

        return $read;
    }

    private static function rise(JsonValue $line): float
    {
        $rise = $line->optional('rise')?->number() ?? 0.0;
        if (0.0 !== $rise && (abs($rise) < Arc::LEAST_RISE_MM || abs($rise) > Wall::MOST_RISE_MM)) {
            throw UnreadableDocument::outOfRange(
                $line->at.'/rise',
                \sprintf('zero for a straight one, or from %g mm to %d km', Arc::LEAST_RISE_MM, Wall::MOST_RISE_MM / 1e6),
            );
        }

        return $rise;
    }

    /**
     * @param array<string, Wall> $walls
     * @param array<string, true> $ids
     */
    private function opening(JsonValue $opening, array $walls, array &$ids): Opening
    {
        $opening->object([...self::OPENING, ...$this->since2(['head', 'rise', 'number', 'exit', 'rated'])]);
        $host = $walls[$opening->get('wall')->text()] ?? throw UnreadableDocument::unknownReference($opening->at.'/wall', 'wall');
        $width = $opening->get('width')->positive();
        if ($width > $host->length()) {
            throw UnreadableDocument::outOfRange(
                $opening->at.'/width',
                \sprintf('at most %.1f mm, the length of its wall', $host->length()),
            );
        }

        $id = self::id($opening, $ids);
        $number = $opening->optional('number')?->text(12) ?? '';
        $this->numbers += '' === $number ? [] : [$id => $number];

        return new Opening(
            $id,
            $host->id,
            $opening->get('kind')->choice(OpeningKind::class),
            $opening->get('offset')->number(),
            $width,
            $opening->optional('sill')?->notNegative() ?? 0.0,
            $opening->optional('height')?->positive(),
            $opening->optional('hand')?->word(['left', 'right']) ?? 'left',
            $opening->optional('swing')?->word(['left', 'right']) ?? 'left',
            $opening->optional('leaf')?->word(Opening::LEAVES) ?? 'single',
            $opening->optional('head')?->choice(OpeningHead::class) ?? OpeningHead::Level,
            $opening->optional('rise')?->notNegative() ?? 0.0,
            $opening->optional('exit')?->choice(DoorExit::class) ?? DoorExit::None,
            $opening->optional('rated')?->text(self::RATED) ?? '',
        );
    }

    /**
     * @param array<string, Wall> $walls
     * @param array<string, true> $ids
     */
    private static function figure(JsonValue $figure, array $walls, array &$ids): Figure
    {
        $figure->object(['id', 'a', 'aSide', 'b', 'bSide', 'mm', 'roundedTo']);
        foreach (['a', 'b'] as $end) {
            if (!isset($walls[$figure->get($end)->text()])) {
                throw UnreadableDocument::unknownReference($figure->at."/$end", 'wall');
            }
        }

        return new Figure(
            self::id($figure, $ids),
            $figure->get('a')->text(),
            $figure->optional('aSide')?->choice(Line::class) ?? Line::Centre,
            $figure->get('b')->text(),
            $figure->optional('bSide')?->choice(Line::class) ?? Line::Centre,
            $figure->get('mm')->positive(),
            ($figure->optional('roundedTo')?->notNegative() ?? 1.0) / 2.0,
        );
    }

    /** @param array<string, true> $ids */
    private static function divider(JsonValue $divider, array &$ids): Divider
    {
        $divider->object(['id', 'from', 'to', 'rise']);
        $read = new Divider(
            self::id($divider, $ids),
            $divider->get('from')->point(),
            $divider->get('to')->point(),
            self::rise($divider),
        );
        if ($read->from->distanceTo($read->to) <= Wall::JOIN_MM) {
            throw UnreadableDocument::outOfRange($divider->at.'/to', \sprintf('more than %g mm away from its start', Wall::JOIN_MM));
        }

        return $read;
    }

    /** @param array<string, true> $ids */
    private static function room(JsonValue $room, array &$ids): Room
    {
        $room->object(['id', 'name', 'number', 'anchor', 'height']);

        return new Room(
            self::id($room, $ids),
            $room->optional('name')?->text() ?? '',
            $room->optional('number')?->text() ?? '',
            $room->get('anchor')->point(),
            $room->optional('height')?->positive(),
        );
    }

    /** @param array<string, true> $ids */
    private static function id(JsonValue $thing, array &$ids): string
    {
        $value = $thing->get('id');
        $id = $value->text(64);
        if (isset($ids[$id])) {
            throw UnreadableDocument::repeatedId($value->at, $id);
        }
        $ids[$id] = true;

        return $id;
    }
}
