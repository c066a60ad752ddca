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
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Removal;
use Plinth\Server\Source\Replacement;
use Symfony\Component\Uid\Uuid;

/**
 * The operations that a client's change is made of: add, set, remove a row; trace a chain of walls; lay down
 * what the ink shows; settle a storey; put a newer page in an older one's place;
 * put what is stated about a drawing back to what it was.
 */
final readonly class Operations
{
    private const MOST = 2000;

    public function __construct(private TraceOperation $trace, private ShiftOperation $shift, private FigureOperation $figure, private ReworkOperation $rework, private LayOperation $lay, private SettleOperation $settle, private Removal $removal, private Replacement $replacement, private FitHistory $history)
    {
    }

    /**
     * @param int $base the revision the client knew; rows touched later are in conflict
     */
    public function apply(Workspace $workspace, JsonValue $body, int $base): void
    {
        $operations = $body->list('operations');
        if (\count($operations) > self::MOST) {
            throw Refusal::tooLarge(\sprintf('A change holds at most %d operations.', self::MOST), 'operations');
        }
        foreach ($operations as $operation) {
            $kind = $operation->object(['do', 'type', 'id', 'values', 'trace', 'shift', 'figure', 'rework', 'lay', 'settle', 'revision'])->get('do')->word(['add', 'set', 'remove', 'trace', 'shift', 'figure', 'rework', 'lay', 'settle', 'replace', 'goBack']);
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
            if ('goBack' === $kind) {
                $drawing = self::current($workspace, RowType::Drawing, RowValues::uuid($operation->get('id')), $base, $operation->at);
                \assert($drawing instanceof Drawing);
                $this->history->goBack($workspace, $drawing, (int) $operation->get('revision')->notNegative(), $operation->at);
                continue;
            }
            if ('replace' === $kind) {
                $page = self::current($workspace, RowType::Page, RowValues::uuid($operation->get('id')), $base, $operation->at);
                \assert($page instanceof Page);
                $this->replacement->apply($workspace, $page, $operation->at);
                continue;
            }
            $type = $operation->get('type')->choice(RowType::class);
            // Of a source its name and where it came from may be set right, nothing else.
            $mayDo = match (true) {
                'remove' === $kind => $type->isRemovedByClients(),
                'set' === $kind && RowType::Source === $type => [] === array_diff(array_keys($operation->get('values')->map()), ['name', 'origin', 'address']),
                default => $type->isWrittenByClients(),
            };
            if (!$mayDo) {
                throw Refusal::invalid('read-only', \sprintf('A %s is made by the application, not written.', $type->value), $operation->at.'/type');
            }
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

    /** The row, unless somebody has touched or removed it since the base revision. */
    public static function current(Workspace $workspace, RowType $type, Uuid $id, int $base, string $at): ProjectRow
    {
        $row = $workspace->find($type, $id) ?? throw Refusal::conflict('gone', \sprintf('This %s is not there any more.', $type->value), $at, ['removed' => [['type' => $type->value, 'id' => $id->toRfc4122()]]]);
        if ($row->revision() > $base) {
            throw Refusal::conflict('changed-since', \sprintf('This %s was changed meanwhile (revision %d, yours was %d).', $type->value, $row->revision(), $base), $at, ['rows' => [$row->describe()]]);
        }

        return $row;
    }
}
