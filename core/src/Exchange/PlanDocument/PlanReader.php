<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PlanDocument;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Arc;
use Plinth\Core\Plan\Model\Column;
use Plinth\Core\Plan\Model\Divider;
use Plinth\Core\Plan\Model\Figure;
use Plinth\Core\Plan\Model\Line;
use Plinth\Core\Plan\Model\Opening;
use Plinth\Core\Plan\Model\OpeningKind;
use Plinth\Core\Plan\Model\Plan;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;
use Plinth\Core\Plan\Model\Wall;

/** Reads a plan document (docs/plan-format.md). Unknown keys are refused with their path. */
final class PlanReader
{
    public const FORMAT = 'zesty-plinth/plan';
    public const VERSION = 1;

    /** @throws UnreadableDocument with the path of what breaks the format */
    public static function read(string $json): Plan
    {
        $document = JsonValue::parse($json)->object(['format', 'version', 'units', 'remarks', 'storeys']);
        $document->get('format')->word([self::FORMAT]);
        if ((float) self::VERSION !== $document->get('version')->number()) {
            throw UnreadableDocument::outOfRange('version', (string) self::VERSION);
        }
        $document->get('units')->word(['mm']);
        foreach ($document->list('remarks') as $remark) {
            $remark->text();
        }
        $ids = [];

        $storeys = [];
        foreach ($document->list('storeys') as $storey) {
            $storeys[] = self::storey($storey, $ids);
        }

        return new Plan($storeys);
    }

    /** @param array<string, true> $ids of the whole document */
    private static function storey(JsonValue $storey, array &$ids): Storey
    {
        $storey->object(['id', 'name', 'elevation', 'height', 'walls', 'openings', 'dividers', 'columns', 'rooms', 'figures']);
        $id = self::id($storey, $ids);
        $byId = [];
        foreach ($storey->list('walls') as $w) {
            $wall = self::wall($w, $ids);
            $byId[$wall->id] = $wall;
        }
        $openings = [];
        foreach ($storey->list('openings') as $o) {
            $openings[] = self::opening($o, $byId, $ids);
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
        );
    }

    /** @param array<string, true> $ids */
    private static function wall(JsonValue $wall, array &$ids): Wall
    {
        $wall->object(['id', 'from', 'to', 'thickness', 'line', 'height', 'rise', 'enclosing']);
        $read = new Wall(
            self::id($wall, $ids),
            $wall->get('from')->point(),
            $wall->get('to')->point(),
            $wall->get('thickness')->positive(Wall::THICKEST_MM),
            $wall->optional('line')?->choice(Line::class) ?? Line::Centre,
            $wall->optional('height')?->positive(),
            self::rise($wall),
            $wall->optional('enclosing')?->boolean() ?? true,
        );
        if ($read->from->distanceTo($read->to) <= Wall::JOIN_MM) {
            throw UnreadableDocument::outOfRange(
                $wall->at.'/to',
                \sprintf('more than %g mm away from its start: a wall needs a length', Wall::JOIN_MM),
            );
        }

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
    private static function opening(JsonValue $opening, array $walls, array &$ids): Opening
    {
        $opening->object(['id', 'wall', 'kind', 'offset', 'width', 'sill', 'height', 'hand', 'swing', 'leaf']);
        $host = $walls[$opening->get('wall')->text()] ?? throw UnreadableDocument::unknownReference($opening->at.'/wall', 'wall');
        $width = $opening->get('width')->positive();
        if ($width > $host->length()) {
            throw UnreadableDocument::outOfRange(
                $opening->at.'/width',
                \sprintf('at most %.1f mm, the length of its wall', $host->length()),
            );
        }

        return new Opening(
            self::id($opening, $ids),
            $host->id,
            $opening->get('kind')->choice(OpeningKind::class),
            $opening->get('offset')->number(),
            $width,
            $opening->optional('sill')?->notNegative() ?? 0.0,
            $opening->optional('height')?->positive(),
            $opening->optional('hand')?->word(['left', 'right']) ?? 'left',
            $opening->optional('swing')?->word(['left', 'right']) ?? 'left',
            $opening->optional('leaf')?->word(Opening::LEAVES) ?? 'single',
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
