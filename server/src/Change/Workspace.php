<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/**
 * The rows of one project while one change is being made. Remembers each touched row as it was, checks that what a row
 * refers to is there, and refuses to remove what is still in use.
 *
 * @phpstan-import-type Values from ProjectRow
 * @phpstan-import-type Touch from Change
 */
final class Workspace
{
    /** @var array<string, array{RowType, Uuid, Values|null}> */
    private array $before = [];
    /** @var array<string, ProjectRow|null> */
    private array $rows = [];
    /** @var array<string, list<string>> */
    private array $keys = [];

    public function __construct(private readonly EntityManagerInterface $entities, private readonly Uuid $project)
    {
    }

    public function find(RowType $type, Uuid $id): ?ProjectRow
    {
        $key = $type->value.'/'.$id->toRfc4122();
        if (!\array_key_exists($key, $this->rows)) {
            $row = $this->entities->find($type->class(), $id);
            $this->rows[$key] = null !== $row && $row->project()->equals($this->project) ? $row : null;
        }

        return $this->rows[$key];
    }

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    public function get(string $class, Uuid $id): ProjectRow
    {
        $row = $this->find($class::type(), $id);

        return $row instanceof $class ? $row : throw Refusal::notFound();
    }

    /**
     * Rows with a field of this value, those of this change included.
     *
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T>
     */
    public function findBy(string $class, string $field, Uuid $value): array
    {
        // Deferred writes would be missed by the query.
        $this->entities->flush();
        $rows = $this->entities->createQueryBuilder()->select('r')->from($class, 'r')
            ->where('r.project = :project')->andWhere("r.$field = :value")
            ->setParameter('project', $this->project, 'uuid')->setParameter('value', $value, 'uuid')
            ->getQuery()->getResult();
        $found = [];
        foreach (\is_array($rows) ? $rows : [] as $row) {
            if ($row instanceof $class) {
                $this->rows[$class::type()->value.'/'.$row->id()->toRfc4122()] = $row;
                $found[] = $row;
            }
        }

        return $found;
    }

    /** The database with all that this change has done so far, for look-ups without entities. */
    public function connection(): Connection
    {
        $this->entities->flush();

        return $this->entities->getConnection();
    }

    /** @param array<string, mixed> $values */
    public function add(RowType $type, Uuid $id, array $values, string $at): ProjectRow
    {
        if (null !== $this->find($type, $id) || null !== $this->entities->find($type->class(), $id)) {
            throw Refusal::conflict('id-taken', 'This id is in use already: make a new one.', $at);
        }
        $class = $type->class();
        $row = new $class($id, $this->project);
        $row->take(new RowValues($values, $at, $this->keys($row)));
        $this->requireReferences($row, $at);
        $this->remember($row, null);
        $this->rows[$type->value.'/'.$id->toRfc4122()] = $row;
        $this->entities->persist($row);

        return $row;
    }

    /** @param array<string, mixed> $values those that change */
    public function set(ProjectRow $row, array $values, string $at): void
    {
        $before = $row->values();
        $row->take(new RowValues($values + $before, $at, $this->keys($row)));
        $this->requireReferences($row, $at);
        if ($row->values() !== $before) {
            $this->remember($row, $before);
        }
    }

    public function remove(ProjectRow $row, string $at): void
    {
        foreach ($row::type()->referrers() as [$type, $field]) {
            foreach ($this->findBy($type->class(), $field, $row->id()) as $user) {
                throw Refusal::conflict('in-use', \sprintf('This cannot be removed: a %s still needs it.', $user::type()->value), $at, ['rows' => [$user->describe()]]);
            }
        }
        $this->remember($row, $row->values());
        $this->rows[$row::type()->value.'/'.$row->id()->toRfc4122()] = null;
        $this->entities->remove($row);
        $this->entities->flush();
    }

    /** @return list<ProjectRow> rows of a kind that this change has touched and not removed */
    public function touched(RowType ...$types): array
    {
        $rows = [];
        foreach ($this->before as $key => [$type]) {
            if (\in_array($type, $types, true) && null !== ($this->rows[$key] ?? null)) {
                $rows[] = $this->rows[$key];
            }
        }

        return $rows;
    }

    /** @return array<string, array{RowType, Uuid, Values|null}> every touched row as it was; null where it was not */
    public function before(): array
    {
        return $this->before;
    }

    /** @return list<Touch> what really differs */
    public function touches(): array
    {
        $touches = [];
        foreach ($this->before as $key => [$type, $id, $before]) {
            $after = ($this->rows[$key] ?? null)?->values();
            if ($before !== $after) {
                $touches[] = ['type' => $type->value, 'id' => $id->toRfc4122(), 'before' => $before, 'after' => $after];
            }
        }

        return $touches;
    }

    /** @param Values|null $before */
    private function remember(ProjectRow $row, ?array $before): void
    {
        $key = $row::type()->value.'/'.$row->id()->toRfc4122();
        $this->before[$key] ??= [$row::type(), $row->id(), $before];
    }

    private function requireReferences(ProjectRow $row, string $at): void
    {
        foreach ($row->references() as [$type, $id, $field]) {
            if (null === $this->find($type, $id)) {
                throw Refusal::conflict('gone', \sprintf('The %s this refers to is not there any more.', $type->value), $at.'/'.$field, ['removed' => [['type' => $type->value, 'id' => $id->toRfc4122()]]]);
            }
        }
    }

    /** @return list<string> what a row of this kind may be given */
    private function keys(ProjectRow $row): array
    {
        $type = $row::type()->value;

        // The names are those of the columns; read from the class, since a blank row has no values yet.
        return $this->keys[$type] ??= array_values(array_diff(
            array_map(static fn (\ReflectionProperty $p): string => $p->getName(), (new \ReflectionClass($row::type()->class()))->getProperties()),
            ['id', 'project', 'revision'],
            $row::FOLLOWS,
        ));
    }
}
