<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Core\Geometry\Motion;
use Plinth\Server\Http\Refusal;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Uid\Uuid;

/**
 * What a client's change is made of: rows added, set, removed and moved, one by one or many at once, and what capabilities have registered.
 */
final readonly class Operations
{
    /** @var array<string, Operation> */
    private array $registered;

    /** @param iterable<Operation> $registered */
    public function __construct(
        #[AutowireIterator(Operation::class)] iterable $registered,
        private Kinds $kinds,
        private Deadline $deadline,
    ) {
        $named = [];
        foreach ($registered as $operation) {
            $named[$operation::name()] = $operation;
        }
        $this->registered = $named;
    }

    /** @param list<JsonValue> $operations */
    public function apply(Workspace $workspace, array $operations, Base $base): void
    {
        $this->prepare($workspace, $operations);
        foreach ($operations as $operation) {
            $this->deadline->check();
            $do = $operation->get('do')->word(['add', 'set', 'remove', 'setMany', 'removeMany', 'move', ...array_keys($this->registered)]);
            match ($do) {
                'add', 'set', 'remove' => $this->one($workspace, $operation, $do, $base),
                'setMany', 'removeMany', 'move' => $this->many($workspace, $operation, $do, $base),
                default => $this->registered[$do]->apply($workspace, $operation->object(['do', $do])->get($do), $base),
            };
        }
    }

    private function one(Workspace $workspace, JsonValue $operation, string $do, Base $base): void
    {
        $operation->object(['do', 'type', 'id', ...('remove' === $do ? [] : ['values'])]);
        $class = $this->kinds->class($operation->get('type'));
        $values = 'remove' === $do ? [] : $operation->get('values')->map();
        self::requireMay($class::kind(), $do, array_keys($values), $operation);
        $id = RowValues::uuid($operation->get('id'));
        match ($do) {
            'add' => $workspace->add($class, $id, $values, $operation->at.'/values'),
            'set' => $workspace->set($workspace->current($class, $id, $base, $operation->at), $values, $operation->at.'/values'),
            default => $workspace->removeWhole($workspace->current($class, $id, $base, $operation->at), $base, $operation->at),
        };
    }

    /** The same done to many rows of one kind: set to the same values, removed, or moved by x and y, mm. */
    private function many(Workspace $workspace, JsonValue $operation, string $do, Base $base): void
    {
        $operation->object(['do', 'type', 'ids', ...('setMany' === $do ? ['values'] : ('move' === $do ? ['by'] : []))]);
        $class = $this->kinds->class($operation->get('type'));
        $values = 'setMany' === $do ? $operation->get('values')->map() : [];
        self::requireMay($class::kind(), 'removeMany' === $do ? 'remove' : 'set', array_keys($values), $operation);
        $motion = Motion::shift(...('move' === $do ? $operation->get('by')->pair() : [0.0, 0.0]));
        foreach ($operation->list('ids') as $at) {
            $this->deadline->check();
            $id = RowValues::uuid($at);
            if ('removeMany' === $do && null === $workspace->find($class, $id) && $workspace->hasTouched($class, $id)) {
                continue; // it went with one before it
            }
            $row = $workspace->current($class, $id, $base, $at->at);
            match ($do) {
                'removeMany' => $workspace->removeWhole($row, $base, $at->at),
                'setMany' => $workspace->set($row, $values, $operation->at.'/values'),
                default => $workspace->set($row, self::moved($row, $motion, $operation->at.'/type'), $operation->at.'/by'),
            };
        }
    }

    /** @return array<string, scalar|null> the places of a row, moved */
    private static function moved(ProjectRow $row, Motion $motion, string $at): array
    {
        $moved = $row->movedBy($motion);
        if ([] === $moved || !$row::kind()->isMoved) {
            throw Refusal::invalid('no-place', \sprintf('%s has no place of its own to be moved from.', ucfirst($row::kind()->one())), $at);
        }

        return $moved;
    }

    /** @param list<string> $keys values that are to be set */
    private static function requireMay(Kind $kind, string $do, array $keys, JsonValue $operation): void
    {
        $may = match (true) {
            'remove' === $do => $kind->isRemoved,
            'set' === $do && !$kind->isWritten && [] !== $kind->mended => [] === array_diff($keys, $kind->mended),
            default => $kind->isWritten,
        };
        if (!$may) {
            throw Refusal::invalid(
                'read-only',
                \sprintf('%s is made by the application, not written.', ucfirst($kind->one())),
                $operation->at.'/type',
            );
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
            $class = \is_string($data['type'] ?? null) ? $this->kinds->classes[$data['type']] ?? null : null;
            if (null === $class) {
                continue;
            }
            foreach ([$data['id'] ?? null, ...(\is_array($data['ids'] ?? null) ? $data['ids'] : [])] as $id) {
                if (\is_string($id) && Uuid::isValid($id)) {
                    \in_array(
                        $data['do'] ?? null,
                        ['remove', 'removeMany'],
                        true,
                    ) ? $removed[$class][] = Uuid::fromString($id) : $touched[$class][] = Uuid::fromString($id);
                }
            }
        }
        foreach ($touched as $class => $ids) {
            $workspace->readAll($class, $ids);
        }
        foreach ($removed as $class => $ids) {
            $workspace->prepareRemoval($class, $ids);
        }
    }
}
