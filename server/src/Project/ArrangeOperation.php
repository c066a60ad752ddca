<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Core\Exchange\Exception\UnreadableDocument;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;
use Plinth\Server\Change\Base;
use Plinth\Server\Change\Operation;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowValues;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\UuidV7;

/** Moves, turns, mirrors and repeats what was drawn on a storey, a side or a section, with what stands on it. */
final readonly class ArrangeOperation implements Operation
{
    private const MOST_COPIES = 500;
    /** rows that one operation makes */
    private const MOST_ROWS = 5000;
    /** Nearer to each other two points tell no line, mm. */
    private const APART_MM = 0.01;

    public function __construct(private Drawn $drawn, private Whole $whole)
    {
    }

    public static function name(): string
    {
        return 'arrange';
    }

    public function apply(Workspace $workspace, JsonValue $wanted, Base $base): void
    {
        $wanted->object(['things', 'by', 'turn', 'about', 'mirror', 'copies']);
        $motion = self::motion($wanted);
        $copies = self::copies($wanted);
        $meant = $this->drawn->meant($workspace, $wanted);
        foreach ($meant as $row) {
            if (!$row instanceof Arrangeable) {
                throw Refusal::invalid(
                    'no-place',
                    \sprintf('%s cannot be arranged: lines, dimensions, notes and outlines can.', ucfirst($row::kind()->one())),
                    $wanted->at.'/things',
                );
            }
        }
        $rows = $this->whole->of($workspace, $meant, true, $wanted->at);
        if (\count($rows) * max(1, $copies) > self::MOST_ROWS) {
            throw Refusal::invalid(
                'too-much',
                \sprintf('That makes more than %d parts at once: repeat fewer of them, or fewer times.', self::MOST_ROWS),
                $wanted->at.'/copies',
            );
        }
        $by = $motion;
        for ($copy = 0; $copy < $copies; ++$copy) {
            self::copy($workspace, $rows, $by, $wanted->at);
            $by = $motion->after($by);
        }
        foreach (0 === $copies ? $rows : [] as $row) {
            $moved = $row->movedBy($motion);
            if ([] !== $moved) {
                $workspace->set($workspace->current($row::class, $row->id(), $base, $wanted->at), $moved, $wanted->at);
            }
        }
    }

    /** @param array<string, ProjectRow> $rows each after those that it names */
    private static function copy(Workspace $workspace, array $rows, Motion $by, string $at): void
    {
        $copies = [];
        foreach ($rows as $row) {
            $id = new UuidV7();
            $copies[$row->id()->toRfc4122()] = $id->toRfc4122();
            $names = [];
            foreach ($row::refers() as $refers) {
                $copied = $copies[(string) $row->named($refers)?->toRfc4122()] ?? null;
                $names += null === $copied ? [] : [$refers->field => $copied];
            }
            $workspace->add($row::class, $id, $row->movedBy($by) + $names + $row->values(), $at);
        }
    }

    private static function motion(JsonValue $wanted): Motion
    {
        $given = array_values(array_filter(['by', 'turn', 'mirror'], static fn (string $way): bool => null !== $wanted->optional($way)));
        if (1 !== \count($given)) {
            throw Refusal::invalid('one-way', 'Say one of the three: moved by so much, turned, or mirrored.', $wanted->at);
        }
        if ('by' === $given[0]) {
            return Motion::shift(...self::place($wanted->get('by'))->toArray());
        }
        if ('turn' === $given[0]) {
            return Motion::turn(self::place($wanted->get('about')), $wanted->get('turn')->number());
        }
        $line = array_map(self::place(...), $wanted->list('mirror'));
        if (2 !== \count($line) || $line[0]->distanceTo($line[1]) < self::APART_MM) {
            throw Refusal::invalid('no-line', 'A mirror is a line through two places that lie apart.', $wanted->at.'/mirror');
        }

        return Motion::mirror(...$line);
    }

    private static function place(JsonValue $at): Point
    {
        [$x, $y] = $at->pair();
        if (max(abs($x), abs($y)) > RowValues::FURTHEST_MM) {
            throw UnreadableDocument::outOfRange($at->at, 'within 10 km');
        }

        return new Point($x, $y);
    }

    private static function copies(JsonValue $wanted): int
    {
        $copies = $wanted->optional('copies')?->count() ?? 0;
        if ($copies > self::MOST_COPIES) {
            throw UnreadableDocument::outOfRange($wanted->at.'/copies', \sprintf('from 0 to %d', self::MOST_COPIES));
        }

        return $copies;
    }
}
