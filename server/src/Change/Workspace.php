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

    /** @var array<string, array{class-string<ProjectRow>, Uuid, Values|null}> */
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

    public function __construct(
        private readonly EntityManagerInterface $entities,
        private readonly Kinds $kinds,
        private readonly Uuid $project,
    ) {
    }

    /** @param class-string<ProjectRow> $class */
    public static function key(string $class, Uuid $id): string
    {
        return $class::kind()->name.'/'.$id->toRfc4122();
    }

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return T|null
     */
    public function find(string $class, Uuid $id): ?ProjectRow
    {
        $key = self::key($class, $id);
        if (!\array_key_exists($key, $this->rows)) {
            $this->rows[$key] = $this->entities->find($class, (new RowId($this->project, $id))->criteria());
        }
        $row = $this->rows[$key];

        return $row instanceof $class ? $row : null;
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
        return $this->find($class, $id) ?? throw Refusal::notFound();
    }

    /**
     * A row that is to be changed, unless somebody has touched or removed it since the base revision.
     *
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return T
     */
    public function current(string $class, Uuid $id, Base $base, string $at): ProjectRow
    {
        $name = $class::kind()->name;
        $row = $this->find($class, $id) ?? throw Refusal::conflict(
            'gone',
            \sprintf('This %s is not there any more.', $name),
            $at,
            ['removed' => [['type' => $name, 'id' => $id->toRfc4122()]], 'by' => $base->removalOf($class, $id)],
        );
        if ($base->isOvertaken($row)) {
            throw Refusal::conflict(
                'changed-since',
                \sprintf('This %s was changed meanwhile (revision %d, yours was %d).', $name, $row->revision(), $base->revision),
                $at,
                ['rows' => [$row->describe()], 'by' => $base->touchOf($row)],
            );
        }

        return $row;
    }

    /**
     * Reads rows of a kind at once that will be asked for one by one.
     *
     * @param class-string<ProjectRow> $class
     * @param list<Uuid> $ids
     */
    public function readAll(string $class, array $ids): void
    {
        $missing = array_values(array_filter($ids, fn (Uuid $id): bool => !\array_key_exists(self::key($class, $id), $this->rows)));
        foreach ($missing as $id) {
            $this->rows[self::key($class, $id)] = null;
        }
        foreach (Rows::with($this->entities, $this->project, $class, 'id', $missing) as $row) {
            $this->rows[self::key($class, $row->id())] = $row;
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
        $name = $class::kind()->name;
        $key = $name.'|'.$field;
        $missing = array_values(array_filter($values, fn (Uuid $v): bool => !isset($this->kept[$key][$v->toRfc4122()])));
        foreach ($missing as $value) {
            $this->kept[$key][$value->toRfc4122()] = [];
        }
        $found = Rows::idsWith($this->entities, $this->project, $class, $field, $missing);
        $this->readAll($class, array_column($found, 0));
        foreach ($found as [$id, $value]) {
            // A row that this change has touched already is known by what it says now, or is to go.
            if (!isset($this->before[$name.'/'.$id->toRfc4122()])) {
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
        $name = $class::kind()->name;
        $key = $name.'|'.$field;
        $wanted = $value->toRfc4122();
        if (!isset($this->kept[$key][$wanted])) {
            $this->findAllBy($class, $field, [$value]);
        }
        if (!isset($this->now[$key])) {
            $this->now[$key] = $this->with[$key] = [];
            foreach ($this->touched($class) as $row) {
                $this->note($row, $key, $field);
            }
        }
        $found = [];
        foreach ([...$this->kept[$key][$wanted], ...array_keys($this->with[$key][$wanted] ?? [])] as $id) {
            $row = $this->rows["$name/$id"] ?? null;
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
                $this->entities->getConnection()->executeStatement(
                    "DELETE FROM $table WHERE project = ? AND id IN (".implode(',', array_fill(0, \count($some), '?')).')',
                    [$this->project->toBinary(), ...array_map(static fn (Uuid $id): string => $id->toBinary(), $some)],
                );
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

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     * @param array<string, mixed> $values
     *
     * @return T
     */
    public function add(string $class, Uuid $id, array $values, string $at): ProjectRow
    {
        if (null !== $this->find($class, $id)) {
            throw Refusal::conflict('id-taken', 'This id is in use already: make a new one.', $at);
        }
        if (isset($this->going[$class][$id->toRfc4122()])) {
            $this->flush(); // one of the same id has only just gone
        }
        $row = new $class($this->project, $id);
        $row->take(new RowValues($values, $at, $this->keys($row)));
        $this->requireReferences($row, $at);
        $this->remember($row, null);
        $this->rows[self::key($class, $id)] = $row;
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

    /** Takes one row away, which nothing may name any more. */
    public function remove(ProjectRow $row, string $at): void
    {
        foreach ($this->kinds->referrers($row::class) as [$class, $refers]) {
            foreach ($this->findBy($class, $refers->field, $row->id()) as $user) {
                throw Refusal::conflict(
                    'in-use',
                    \sprintf('This cannot be removed: %s still needs it.', $class::kind()->one()),
                    $at,
                    ['rows' => [$user->describe()]],
                );
            }
        }
        $this->remember($row, $row->values());
        $id = $row->id()->toRfc4122();
        $this->rows[self::key($row::class, $row->id())] = null;
        if (!$this->entities->getUnitOfWork()->isScheduledForInsert($row)) {
            $this->going[$row::class][$id] = $row->id();
        }
        $this->entities->detach($row);
    }

    /**
     * Takes a row away together with what would stand on nothing, and with what only it has named.
     *
     * @param Base|null $base what was added to it or changed of it since does not go unseen; null where nobody else can have come between
     */
    public function removeWhole(ProjectRow $row, ?Base $base, string $at): void
    {
        foreach ($this->kinds->referrers($row::class) as [$class, $refers]) {
            foreach (WhenGone::Holds === $refers->then ? [] : $this->findBy($class, $refers->field, $row->id()) as $user) {
                if (WhenGone::LetsGo === $refers->then) {
                    $this->set($user, [$refers->field => null], $at);
                } elseif (null !== $this->find($class, $user->id())) {
                    $this->removeWhole(null === $base ? $user : $this->current($class, $user->id(), $base, $at), $base, $at);
                }
            }
        }
        $named = array_map(
            static fn (Refers $by): ?array => $by->alone && null !== ($id = $row->named($by)) ? [$by->to, $id] : null,
            $row::refers(),
        );
        $this->remove($row, $at);
        foreach (array_filter($named) as [$class, $id]) {
            $other = $this->find($class, $id);
            if (null !== $other && !$this->isNamed($other)) {
                $this->remove($other, $at);
            }
        }
    }

    /**
     * Reads at once what removing many rows will ask for one by one.
     *
     * @param class-string<ProjectRow> $class
     * @param list<Uuid> $ids
     */
    public function prepareRemoval(string $class, array $ids): void
    {
        $done = [];
        $this->readForRemoval($class, $ids, $done);
    }

    /**
     * @param class-string<ProjectRow> $class
     * @param list<Uuid> $ids
     * @param array<string, true> $done rows that were looked at: what goes along may name what it goes along with
     */
    private function readForRemoval(string $class, array $ids, array &$done): void
    {
        $ids = array_values(array_filter($ids, static fn (Uuid $id): bool => !isset($done[self::key($class, $id)])));
        if ([] === $ids) {
            return;
        }
        foreach ($ids as $id) {
            $done[self::key($class, $id)] = true;
        }
        $this->readAll($class, $ids);
        foreach ($this->kinds->referrers($class) as [$referrer, $refers]) {
            $this->findAllBy($referrer, $refers->field, $ids);
            $this->readForRemoval($referrer, WhenGone::GoesAlong !== $refers->then ? [] : array_merge(
                ...array_map(fn (Uuid $id): array => array_map(
                    static fn (ProjectRow $row): Uuid => $row->id(),
                    $this->findBy($referrer, $refers->field, $id),
                ), $ids),
            ), $done);
        }
        foreach ($class::refers() as $by) {
            $this->readForRemoval($by->to, !$by->alone ? [] : array_values(
                array_filter(array_map(fn (Uuid $id): ?Uuid => $this->find($class, $id)?->named($by), $ids)),
            ), $done);
        }
    }

    private function isNamed(ProjectRow $row): bool
    {
        foreach ($this->kinds->referrers($row::class) as [$class, $refers]) {
            if ([] !== $this->findBy($class, $refers->field, $row->id())) {
                return true;
            }
        }

        return false;
    }

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T> rows of a kind that this change has touched and not removed
     */
    public function touched(string $class): array
    {
        $rows = [];
        foreach ($this->before as $key => [$of]) {
            $row = $of === $class ? $this->rows[$key] ?? null : null;
            if ($row instanceof $class) {
                $rows[] = $row;
            }
        }

        return $rows;
    }

    /** @param class-string<ProjectRow> $class */
    public function hasTouched(string $class, Uuid $id): bool
    {
        return isset($this->before[self::key($class, $id)]);
    }

    /**
     * @param class-string<ProjectRow> $class
     *
     * @return Values|null a touched row as it was; null where it was not, or was not touched
     */
    public function was(string $class, Uuid $id): ?array
    {
        return $this->before[self::key($class, $id)][2] ?? null;
    }

    /** @return array<string, array{class-string<ProjectRow>, Uuid, Values|null}> every touched row as it was; null where it was not */
    public function before(): array
    {
        return $this->before;
    }

    /** @return list<Touch> what really differs */
    public function touches(): array
    {
        $touches = [];
        foreach ($this->before as $key => [$class, $id, $before]) {
            $after = ($this->rows[$key] ?? null)?->values();
            if ($before !== $after) {
                $touches[] = ['type' => $class::kind()->name, 'id' => $id->toRfc4122(), 'before' => $before, 'after' => $after];
            }
        }

        return $touches;
    }

    /** Keeps what was looked up in step with a row that was added or set. */
    private function changed(ProjectRow $row): void
    {
        $this->isDirty = true;
        foreach (array_keys($this->now) as $key) {
            [$name, $field] = explode('|', $key);
            if ($row::kind()->name === $name) {
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
        $this->before[self::key($row::class, $row->id())] ??= [$row::class, $row->id(), $before];
    }

    private function requireReferences(ProjectRow $row, string $at): void
    {
        foreach ($row::refers() as $by) {
            $id = $row->named($by);
            if (null !== $id && null === $this->find($by->to, $id)) {
                $name = $by->to::kind()->name;
                throw Refusal::conflict(
                    'gone',
                    \sprintf('The %s this refers to is not there any more.', $name),
                    $at.'/'.$by->field,
                    ['removed' => [['type' => $name, 'id' => $id->toRfc4122()]]],
                );
            }
        }
    }

    /** @return list<string> what a row of this kind may be given */
    private function keys(ProjectRow $row): array
    {
        // The names are those of the columns; read from the class, since a blank row has no values yet.
        return $this->keys[$row::class] ??= array_values(array_diff(
            array_map(static fn (\ReflectionProperty $p): string => $p->getName(), (new \ReflectionClass($row::class))->getProperties()),
            ['id', 'project', 'revision'],
            $row::FOLLOWS,
        ));
    }
}
