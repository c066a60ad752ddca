<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Plinth\Server\Change\ProjectRow;
use Symfony\Component\Uid\Uuid;

/**
 * What is being told of a project: all of it, or what has been touched since a revision.
 *
 * @phpstan-import-type Values from ProjectRow
 */
final readonly class Telling
{
    /** s that a transaction may take from its first statement to its end: what it has done is told all the same */
    private const LATE = 10.0;

    /**
     * @param int|null $since null where all of it is told
     * @param list<Uuid>|null $storeys those that are told whole, whatever has changed; null for all of them
     * @param float $heard when the client was last told of what happens beside changes, by the database's clock, s
     * @param array<string, ProjectRow> $rows by kind and id, as they are now
     * @param list<array{class-string<ProjectRow>, Uuid, Values|null}> $gone rows that are not there any more, with what is known of them
     */
    public function __construct(
        public Project $project,
        public ?int $since,
        public array $rows,
        public array $gone = [],
        private float $heard = 0.0,
        public ?array $storeys = null,
    ) {
    }

    /** @return float|null from when on it is told what happens beside changes, by the database's clock, s; null for all of it */
    public function after(): ?float
    {
        return null === $this->since || 0.0 === $this->heard ? null : max(1.0, $this->heard - self::LATE);
    }

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T>
     */
    public function rowsOf(string $class): array
    {
        return array_values(array_filter($this->rows, static fn (ProjectRow $row): bool => $row instanceof $class));
    }
}
