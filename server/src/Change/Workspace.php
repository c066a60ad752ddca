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
    /** rows taken away by one statement */
    private const AT_ONCE = 500;

    /** @var array<string, array{RowType, Uuid, Values|null}> */
    private array $before = [];
    /** @var array<string, ProjectRow|null> */
    private array $rows = [];
    /** @var array<string, list<string>> */
    private array $keys = [];
    /** @var array<string, array<string, list<string>>> type and field → value → ids of rows that the database has with it */
    private array $kept = [];
    /** @var array<string, array<string, string>> type and field → id → value, of touched rows as they are now */
    private array $now = [];
    /** @var array<string, array<string, array<string, true>>> the same turned round: type and field → value → ids */
    private array $with = [];
    /** @var array<class-string<ProjectRow>, array<string, Uuid>> rows that are to go, by their keys */
    private array $going = [];
    private bool $isDirty = false;

    public function __construct(private readonly EntityManagerInterface $entities, private readonly Uuid $project)
    {
    }

    public function find(RowType $type, Uuid $id): ?ProjectRow
    {
        $key = $type->value.'/'.$id->toRfc4122();
        if (!\array_key_exists($key, $this->rows)) {
            $this->rows[$key] = $this->entities->find($type->class(), (new RowId($this->project, $id))->criteria());
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
     * Reads rows of a kind at once that will be asked for one by one.
     *
     * @param list<Uuid> $ids
     */
    public function readAll(RowType $type, array $ids): void
    {
        $missing = array_values(array_filter($ids, fn (Uuid $id): bool => !\array_key_exists($type->value.'/'.$id->toRfc4122(), $this->rows)));
        foreach ($missing as $id) {
            $this->rows[$type->value.'/'.$id->toRfc4122()] = null;
        }
        foreach (Rows::with($this->entities, $this->project, $type->class(), 'id', $missing) as $row) {
            $this->rows[$type->value.'/'.$row->id()->toRfc4122()] = $row;
        }
    }

    /**
     * Looks up rows by a field at once that will be asked for value by value.
     *
     * @param class-string<ProjectRow> $class
     * @param list<Uuid> $values
     */
    public function findAllBy(string $class, string $field, array $values): void
    {
        $type = $class::type();
        $key = $type->value.'|'.$field;
        $missing = array_values(array_filter($values, fn (Uuid $v): bool => !isset($this->kept[$key][$v->toRfc4122()])));
        foreach ($missing as $value) {
            $this->kept[$key][$value->toRfc4122()] = [];
        }
        $found = Rows::idsWith($this->entities, $this->project, $class, $field, $missing);
        $this->readAll($type, array_column($found, 0));
        foreach ($found as [$id, $value]) {
            // A row that this change has touched already is known by what it says now, or is to go.
            if (!isset($this->before[$type->value.'/'.$id->toRfc4122()])) {
                $this->kept[$key][$value->toRfc4122()][] = $id->toRfc4122();
            }
        }
    }

    /**
     * Rows with a field of this value, as this change has left them so far.
     *
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T>
     */
    public function findBy(string $class, string $field, Uuid $value): array
    {
        $type = $class::type();
        $key = $type->value.'|'.$field;
        $wanted = $value->toRfc4122();
        if (!isset($this->kept[$key][$wanted])) {
            $this->findAllBy($class, $field, [$value]);
        }
        if (!isset($this->now[$key])) {
            $this->now[$key] = $this->with[$key] = [];
            foreach ($this->touched($type) as $row) {
                $this->note($row, $key, $field);
            }
        }
        $found = [];
        foreach ([...$this->kept[$key][$wanted], ...array_keys($this->with[$key][$wanted] ?? [])] as $id) {
            $row = $this->rows["$type->value/$id"] ?? null;
            if ($row instanceof $class && self::valueOf($row, $field) === $wanted) {
                $found[$id] = $row;
            }
        }

        return array_values($found);
    }

    /** Writes what has been done so far, for whoever looks into the database. */
    public function flush(): void
    {
        if ($this->isDirty) {
            $this->entities->flush();
            $this->isDirty = false;
        }
        foreach ($this->going as $class => $ids) {
            $table = $this->entities->getClassMetadata($class)->getTableName();
            foreach (array_chunk(array_values($ids), self::AT_ONCE) as $some) {
                $this->entities->getConnection()->executeStatement("DELETE FROM $table WHERE project = ? AND id IN (".implode(',', array_fill(0, \count($some), '?')).')', [$this->project->toBinary(), ...array_map(static fn (Uuid $id): string => $id->toBinary(), $some)]);
            }
        }
        $this->going = [];
    }

    public function project(): Uuid
    {
        return $this->project;
    }

    /** The database with all that this change has done so far, for look-ups without entities. */
    public function connection(): Connection
    {
        $this->flush();

        return $this->entities->getConnection();
    }

    /** @param array<string, mixed> $values */
    public function add(RowType $type, Uuid $id, array $values, string $at): ProjectRow
    {
        if (null !== $this->find($type, $id)) {
            throw Refusal::conflict('id-taken', 'This id is in use already: make a new one.', $at);
        }
        $class = $type->class();
        if (isset($this->going[$class][$id->toRfc4122()])) {
            $this->flush(); // one of the same id has only just gone
        }
        $row = new $class($this->project, $id);
        $row->take(new RowValues($values, $at, $this->keys($row)));
        $this->requireReferences($row, $at);
        $this->remember($row, null);
        $this->rows[$type->value.'/'.$id->toRfc4122()] = $row;
        $this->entities->persist($row);
        $this->changed($row);

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
            $this->changed($row);
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
        $id = $row->id()->toRfc4122();
        $this->rows[$row::type()->value.'/'.$id] = null;
        if (!$this->entities->getUnitOfWork()->isScheduledForInsert($row)) {
            $this->going[$row::type()->class()][$id] = $row->id();
        }
        $this->entities->detach($row);
    }

    /**
     * Reads at once what removing many rows will ask for one by one.
     *
     * @param list<Uuid> $ids
     */
    public function prepareRemoval(RowType $type, array $ids): void
    {
        $this->readAll($type, $ids);
        foreach ($type->referrers() as [$referrer, $field]) {
            $this->findAllBy($referrer->class(), $field, $ids);
        }
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

    /** Keeps what was looked up in step with a row that was added or set. */
    private function changed(ProjectRow $row): void
    {
        $this->isDirty = true;
        foreach (array_keys($this->now) as $key) {
            [$type, $field] = explode('|', $key);
            if ($row::type()->value === $type) {
                $this->note($row, $key, $field);
            }
        }
    }

    private function note(ProjectRow $row, string $key, string $field): void
    {
        $id = $row->id()->toRfc4122();
        $value = self::valueOf($row, $field);
        $was = $this->now[$key][$id] ?? null;
        if (null !== $was) {
            unset($this->with[$key][$was][$id]);
        }
        $this->now[$key][$id] = $value;
        $this->with[$key][$value][$id] = true;
    }

    private static function valueOf(ProjectRow $row, string $field): string
    {
        return 'id' === $field ? $row->id()->toRfc4122() : (string) ($row->values()[$field] ?? '');
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
