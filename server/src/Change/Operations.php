<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Fit\FitHistory;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Plan\FigureOperation;
use Plinth\Server\Plan\LayOperation;
use Plinth\Server\Plan\ReworkOperation;
use Plinth\Server\Plan\SettleOperation;
use Plinth\Server\Plan\ShiftOperation;
use Plinth\Server\Plan\TraceOperation;
use Plinth\Server\Plan\WallsElsewhere;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Removal;
use Plinth\Server\Source\Replacement;
use Symfony\Component\Uid\Uuid;

/**
 * The operations that a client's change is made of: add, set, remove a row; trace a chain of walls; lay down
 * what the ink shows; copy walls or a storey; settle a storey; put a newer page in an older one's place;
 * put what is stated about a drawing back to what it was.
 */
final readonly class Operations
{
    public function __construct(private TraceOperation $trace, private ShiftOperation $shift, private FigureOperation $figure, private ReworkOperation $rework, private LayOperation $lay, private WallsElsewhere $elsewhere, private SettleOperation $settle, private Removal $removal, private Replacement $replacement, private FitHistory $history, private Deadline $deadline)
    {
    }

    /**
     * @param Base $base what the change was composed on: rows that others have touched since are in conflict
     */
    public function apply(Workspace $workspace, JsonValue $body, Base $base): void
    {
        $operations = $body->list('operations');
        $this->prepare($workspace, $operations);
        foreach ($operations as $operation) {
            $this->deadline->check();
            $kind = $operation->object(['do', 'type', 'id', 'ids', 'values', 'by', 'storey', 'trace', 'shift', 'figure', 'rework', 'lay', 'settle', 'copy', 'revision'])->get('do')->word(['add', 'set', 'remove', 'setMany', 'removeMany', 'move', 'copy', 'trace', 'shift', 'figure', 'rework', 'lay', 'settle', 'replace', 'goBack']);
            $own = match ($kind) {
                'trace' => $this->trace,
                'shift' => $this->shift,
                'figure' => $this->figure,
                'rework' => $this->rework,
                'lay' => $this->lay,
                'settle' => $this->settle,
                default => null,
            };
            if (null !== $own) {
                $own->apply($workspace, $operation->get($kind), $base);
                continue;
            }
            if ('copy' === $kind) {
                $this->elsewhere->copy($workspace, $operation->get('copy'));
                continue;
            }
            if (\in_array($kind, ['setMany', 'removeMany', 'move'], true)) {
                $this->many($workspace, $operation, $kind, $base);
                continue;
            }
            if ('goBack' === $kind) {
                $drawing = self::current($workspace, RowType::Drawing, RowValues::uuid($operation->get('id')), $base, $operation->at);
                \assert($drawing instanceof Drawing);
                $this->history->goBack($workspace, $drawing, $operation->get('revision')->count(), $operation->at);
                continue;
            }
            if ('replace' === $kind) {
                $page = self::current($workspace, RowType::Page, RowValues::uuid($operation->get('id')), $base, $operation->at);
                \assert($page instanceof Page);
                $this->replacement->apply($workspace, $page, $operation->at);
                continue;
            }
            $type = $operation->get('type')->choice(RowType::class);
            self::mayDo($kind, $type, $operation);
            $id = RowValues::uuid($operation->get('id'));
            if ('add' === $kind) {
                $workspace->add($type, $id, $operation->get('values')->map(), $operation->at.'/values');
                continue;
            }
            $row = self::current($workspace, $type, $id, $base, $operation->at);
            if ('set' === $kind) {
                $workspace->set($row, $operation->get('values')->map(), $operation->at.'/values');
            } else {
                $this->removal->row($workspace, $row, $base, $operation->at);
            }
        }
    }

    /** The same done to many rows of one kind: set to the same values, removed, moved by x and y, mm, or walls to another storey. */
    private function many(Workspace $workspace, JsonValue $operation, string $kind, Base $base): void
    {
        $type = $operation->get('type')->choice(RowType::class);
        self::mayDo('removeMany' === $kind ? 'remove' : 'set', $type, $operation);
        if ('move' === $kind && null !== $operation->optional('storey')) {
            $this->elsewhere->move($workspace, $operation->list('ids'), RowValues::uuid($operation->get('storey')), $base, $operation->at);

            return;
        }
        [$dx, $dy] = 'move' === $kind ? $operation->get('by')->pair() : [0.0, 0.0];
        foreach ($operation->list('ids') as $id) {
            $this->deadline->check();
            $row = $workspace->find($type, RowValues::uuid($id));
            if ('removeMany' === $kind && null === $row && isset($workspace->before()[$type->value.'/'.$id->text()])) {
                continue; // it went with one before it
            }
            $row = self::current($workspace, $type, RowValues::uuid($id), $base, $id->at);
            match ($kind) {
                'removeMany' => $this->removal->row($workspace, $row, $base, $id->at),
                'setMany' => $workspace->set($row, $operation->get('values')->map(), $operation->at.'/values'),
                default => $workspace->set($row, self::moved($row, $dx, $dy, $operation->at.'/type'), $operation->at.'/by'),
            };
        }
    }

    /** @return array<string, float> the places of a row, moved */
    public static function moved(ProjectRow $row, float $dx, float $dy, string $at = ''): array
    {
        $places = array_intersect_key($row->values(), ['x' => true, 'y' => true, 'x1' => true, 'y1' => true, 'x2' => true, 'y2' => true]);
        if ([] === $places || RowType::Pick === $row::type()) {
            throw Refusal::invalid('no-place', \sprintf('A %s has no place of its own to be moved from.', $row::type()->value), $at);
        }
        foreach ($places as $key => $place) {
            $places[$key] = (float) $place + ('x' === $key[0] ? $dx : $dy);
        }

        return $places;
    }

    private static function mayDo(string $kind, RowType $type, JsonValue $operation): void
    {
        // Of a source its name and where it came from may be set right, nothing else.
        $mayDo = match (true) {
            'remove' === $kind => $type->isRemovedByClients(),
            'set' === $kind && RowType::Source === $type => [] === array_diff(array_keys($operation->optional('values')?->map() ?? []), ['name', 'origin', 'address']),
            default => $type->isWrittenByClients(),
        };
        if (!$mayDo) {
            throw Refusal::invalid('read-only', \sprintf('A %s is made by the application, not written.', $type->value), $operation->at.'/type');
        }
    }

    /**
     * Reads at once what many operations will ask for one by one.
     *
     * @param list<JsonValue> $operations
     */
    private function prepare(Workspace $workspace, array $operations): void
    {
        $touched = [];
        $removed = [];
        foreach ($operations as $operation) {
            $data = $operation->map();
            $type = \is_string($data['type'] ?? null) ? RowType::tryFrom($data['type']) : null;
            if (null === $type) {
                continue;
            }
            foreach ([$data['id'] ?? null, ...(\is_array($data['ids'] ?? null) ? $data['ids'] : [])] as $id) {
                if (\is_string($id) && Uuid::isValid($id)) {
                    \in_array($data['do'] ?? null, ['remove', 'removeMany'], true) ? $removed[$type->value][] = Uuid::fromString($id) : $touched[$type->value][] = Uuid::fromString($id);
                }
            }
        }
        foreach ($touched as $type => $ids) {
            $workspace->readAll(RowType::from($type), $ids);
        }
        foreach ($removed as $type => $ids) {
            $workspace->prepareRemoval(RowType::from($type), $ids);
            if (RowType::Wall->value === $type) {
                $this->removal->prepareWalls($workspace, $ids);
            }
        }
    }

    /** The row, unless somebody has touched or removed it since the base revision. */
    public static function current(Workspace $workspace, RowType $type, Uuid $id, Base $base, string $at): ProjectRow
    {
        $row = $workspace->find($type, $id) ?? throw Refusal::conflict('gone', \sprintf('This %s is not there any more.', $type->value), $at, ['removed' => [['type' => $type->value, 'id' => $id->toRfc4122()]], 'by' => $base->removalOf($type, $id)]);
        if ($base->isOvertaken($row)) {
            throw Refusal::conflict('changed-since', \sprintf('This %s was changed meanwhile (revision %d, yours was %d).', $type->value, $row->revision(), $base->revision), $at, ['rows' => [$row->describe()], 'by' => $base->touchOf($row)]);
        }

        return $row;
    }
}
