<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\ORM\Mapping as ORM;
use Plinth\Core\Geometry\Motion;
use Plinth\Core\Geometry\Point;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/**
 * A row of a project: known within it by an id that the client made, and by the revision that touched it last.
 *
 * @phpstan-type Values array<string, scalar|null>
 */
#[ORM\MappedSuperclass]
abstract class ProjectRow
{
    /** @var list<string> columns that follow from others or belong to a job: nobody writes them by a change */
    public const FOLLOWS = [];

    /** What most rows call their own places. */
    private const PLACES = [['x', 'y'], ['x1', 'y1'], ['x2', 'y2'], ['toX', 'toY']];

    #[ORM\Column]
    protected int $revision = 0;

    final public function __construct(
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        protected Uuid $project,
        #[ORM\Id]
        #[ORM\Column(type: UuidType::NAME)]
        protected Uuid $id,
    ) {
    }

    public static function kind(): Kind
    {
        /** @var array<class-string, Kind> $known */
        static $known = [];

        return $known[static::class] ??= (
            (new \ReflectionClass(static::class))->getAttributes(Kind::class)[0]
            ?? throw new \LogicException(static::class.' does not say what kind of row it is.')
        )->newInstance();
    }

    /** @return list<Refers> the values of such rows that name others */
    public static function refers(): array
    {
        /** @var array<class-string, list<Refers>> $known */
        static $known = [];
        if (!isset($known[static::class])) {
            $known[static::class] = [];
            foreach ((new \ReflectionClass(static::class))->getProperties() as $property) {
                foreach ($property->getAttributes(Refers::class) as $attribute) {
                    $known[static::class][] = $attribute->newInstance()->of($property->getName());
                }
            }
        }

        return $known[static::class];
    }

    /** @return Values all that the user made, ready for JSON */
    abstract public function values(): array;

    /** Takes a full set of values, refusing what breaks the row's own rules. */
    abstract public function take(RowValues $values): void;

    /** The row that a value of this one names; null where it names none. */
    public function named(Refers $by): ?Uuid
    {
        $value = 'id' === $by->field ? $this->id->toRfc4122() : $this->values()[$by->field] ?? null;

        return \is_string($value) ? Uuid::fromString($value) : null;
    }

    /** @return Values its own places, and the rises of arcs between them, once it lies elsewhere; none where it has none */
    public function movedBy(Motion $motion): array
    {
        $values = $this->values();
        $moved = [];
        foreach (self::PLACES as [$x, $y]) {
            if (is_numeric($values[$x] ?? null) && is_numeric($values[$y] ?? null)) {
                $to = $motion->of(new Point((float) $values[$x], (float) $values[$y]));
                $moved += [$x => $to->x, $y => $to->y];
            }
        }
        $rise = $values['rise'] ?? null;

        return [] !== $moved && is_numeric($rise) ? $moved + ['rise' => $motion->rise((float) $rise)] : $moved;
    }

    public function id(): Uuid
    {
        return $this->id;
    }

    public function project(): Uuid
    {
        return $this->project;
    }

    public function key(): RowId
    {
        return new RowId($this->project, $this->id);
    }

    /** Of a row of the same project. */
    public function beside(Uuid $id): RowId
    {
        return new RowId($this->project, $id);
    }

    public function revision(): int
    {
        return $this->revision;
    }

    public function touchedAt(int $revision): void
    {
        $this->revision = $revision;
    }

    /** @return array{type: string, id: string, revision: int, values: Values} */
    public function describe(): array
    {
        return ['type' => static::kind()->name, 'id' => $this->id->toRfc4122(), 'revision' => $this->revision, 'values' => $this->values()];
    }
}
