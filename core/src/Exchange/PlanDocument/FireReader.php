<?php

declare(strict_types=1);

namespace Plinth\Core\Exchange\PlanDocument;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Contour;
use Plinth\Core\Geometry\Point;
use Plinth\Core\Plan\Model\Enclosure;
use Plinth\Core\Plan\Model\EscapeLimit;
use Plinth\Core\Plan\Model\EscapeMeasure;
use Plinth\Core\Plan\Model\FireClass;
use Plinth\Core\Plan\Model\FireSafety;
use Plinth\Core\Plan\Model\Hatch;
use Plinth\Core\Plan\Model\Room;
use Plinth\Core\Plan\Model\Storey;

/** Reads `fire` of a plan document: classes that differ in their spelling alone become one, called as the first of them. */
final class FireReader
{
    public const LONGEST = 60;

    /** @var array<string, string> id of the class that stands for it, by id */
    private array $classes = [];

    /**
     * @param array<string, Storey> $storeys by id
     * @param callable(JsonValue): string $id that is like no other of the document
     */
    private function __construct(private readonly array $storeys, private $id)
    {
    }

    /**
     * @param list<Storey> $storeys
     * @param callable(JsonValue): string $id
     */
    public static function read(?JsonValue $fire, array $storeys, callable $id): FireSafety
    {
        if (null === $fire) {
            return new FireSafety();
        }
        $fire->object(['classes', 'enclosures', 'together', 'limits']);
        $reader = new self(array_column($storeys, null, 'id'), $id);
        $classes = $reader->classes($fire->list('classes'));

        return new FireSafety(
            $classes,
            array_map($reader->enclosure(...), $fire->list('enclosures')),
            array_map($reader->together(...), $fire->list('together')),
            array_map(self::limit(...), $fire->list('limits')),
        );
    }

    /** What cannot be the name of a class is told. */
    public static function name(string $typed, string $at): string
    {
        return '' !== FireClass::key($typed) ? trim($typed) : throw UnreadableDocument::outOfRange(
            $at,
            'a class, as REI 60: letters or digits',
        );
    }

    /**
     * @param list<JsonValue> $list
     *
     * @return list<FireClass>
     */
    private function classes(array $list): array
    {
        $classes = [];
        foreach ($list as $k => $class) {
            $class->object(['id', 'name', 'colour', 'hatch']);
            $id = ($this->id)($class);
            $name = self::name($class->get('name')->text(self::LONGEST), $class->at.'/name');
            $colour = $class->optional('colour');
            if (null !== $colour && 1 !== preg_match('/^#[0-9a-f]{6}$/', $colour->text())) {
                throw UnreadableDocument::outOfRange($colour->at, '# and six digits from 0 to f');
            }
            $one = $classes[FireClass::key($name)] ??= new FireClass(
                $id,
                $name,
                $colour?->text() ?? FireClass::COLOURS[$k % \count(FireClass::COLOURS)],
                $class->optional('hatch')?->choice(Hatch::class) ?? Hatch::cases()[$k % \count(Hatch::cases())],
            );
            $this->classes[$id] = $one->id;
        }

        return array_values($classes);
    }

    private function class(JsonValue $class): string
    {
        return $this->classes[$class->text()] ?? throw UnreadableDocument::unknownReference($class->at, 'class');
    }

    private function enclosure(JsonValue $enclosure): Enclosure
    {
        $enclosure->object(['id', 'storey', 'class', 'rooms', 'outline', 'rises']);
        $on = $enclosure->get('storey');
        $storey = $this->storeys[$on->text()] ?? throw UnreadableDocument::unknownReference($on->at, 'storey');
        $there = array_map(static fn (Room $r): string => $r->id, $storey->rooms);
        $rooms = [];
        foreach ($enclosure->list('rooms') as $room) {
            if (!\in_array($room->text(), $there, true)) {
                throw UnreadableDocument::unknownReference($room->at, 'room of its storey');
            }
            $rooms[] = $room->text();
        }
        $corners = array_map(static fn (JsonValue $p): Point => $p->point(), $enclosure->list('outline'));
        if ([] === $rooms ? \count($corners) < 3 : [] !== $corners) {
            throw UnreadableDocument::outOfRange($enclosure->at.'/outline', 'three corners or more, or rooms: one of the two');
        }

        $outline = [] === $corners ? null : new Contour($corners, array_map(
            static fn (JsonValue $r): float => $r->number(),
            $enclosure->list('rises'),
        ));
        if (null !== $outline && abs($outline->area()) < Enclosure::LEAST_MM2) {
            throw UnreadableDocument::outOfRange($enclosure->at.'/outline', 'corners that go round something');
        }

        return new Enclosure(
            ($this->id)($enclosure),
            $storey->id,
            $this->class($enclosure->get('class')),
            $rooms,
            $outline,
        );
    }

    /** @return array{string, string} */
    private function together(JsonValue $pair): array
    {
        $both = $pair->items();

        return 2 === \count($both) ? [$this->class($both[0]), $this->class($both[1])] : throw UnreadableDocument::outOfRange(
            $pair->at,
            'two classes',
        );
    }

    private static function limit(JsonValue $limit): EscapeLimit
    {
        $limit->object(['measure', 'bound', 'standing']);
        $measure = $limit->get('measure')->choice(EscapeMeasure::class);

        return new EscapeLimit($measure, $limit->get('bound')->positive($measure->largest()), $limit->get('standing')->text(200));
    }
}
