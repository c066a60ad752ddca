<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Plinth\Core\Exchange\Json\JsonValue;
use Plinth\Server\Account\User;
use Plinth\Server\Http\Refusal;
use Symfony\Component\Uid\Uuid;

/**
 * What a change was composed on: the revision its author was shown, and own changes that were on their way by then. A row is in
 * conflict when anything else has touched it since.
 */
final class Base
{
    /** changes that may wait one behind another on a desk */
    private const MOST_AFTER = 1000;

    /** @var array<string, true>|null keys of rows that others have touched since; read when a row asks for it */
    private ?array $others = null;

    /** @param list<Uuid> $after ids of own changes, made or still to be made, that it stands on */
    private function __construct(
        private readonly Connection $connection,
        private readonly Uuid $project,
        private readonly Uuid $user,
        public readonly int $revision,
        private readonly array $after,
    ) {
    }

    /**
     * @param JsonValue $body with `base` and, where there are any, `after`
     * @param int $head the project's revision
     */
    public static function of(Connection $connection, Uuid $project, User $user, JsonValue $body, int $head): self
    {
        $revision = $body->get('base')->count();
        if ($revision > $head) {
            throw Refusal::invalid(
                'base-ahead',
                \sprintf('The project is at revision %d: nobody can know revision %d. Load it again.', $head, $revision),
                $body->at.'/base',
            );
        }
        $after = $body->optional('after')?->items() ?? [];
        if (\count($after) > self::MOST_AFTER) {
            throw Refusal::tooMuch(
                \sprintf('A change stands on at most %d others. Load the project again.', self::MOST_AFTER),
                $body->at.'/after',
            );
        }

        return new self($connection, $project, $user->id(), $revision, array_map(RowValues::uuid(...), $after));
    }

    /** Whether anybody else, or another desk of the same account, has touched a row since. */
    public function isOvertaken(ProjectRow $row): bool
    {
        if ($row->revision() <= $this->revision || [] === $this->after) {
            return $row->revision() > $this->revision;
        }

        return isset($this->others()[Workspace::key($row::class, $row->id())]);
    }

    /** Of a change that nobody else can have come between. */
    public static function latest(Connection $connection, Uuid $project, User $user): self
    {
        return new self($connection, $project, $user->id(), \PHP_INT_MAX, []);
    }

    /** @return array{name: string, title: string, at: string}|null who touched a row last, by which change and when */
    public function touchOf(ProjectRow $row): ?array
    {
        $touch = $this->connection->fetchNumeric(
            'SELECT a.name, c.title, c.at FROM project_change c JOIN account a ON a.id = c.account WHERE c.project = ? AND c.revision = ?',
            [$this->project->toBinary(), $row->revision()],
        );

        return \is_array($touch) ? self::touch($touch[0], $touch[1], $touch[2]) : null;
    }

    /**
     * @param class-string<ProjectRow> $class
     *
     * @return array{name: string, title: string, at: string}|null who removed a row since
     */
    public function removalOf(string $class, Uuid $id): ?array
    {
        foreach ($this->connection->iterateNumeric(
            'SELECT a.name, c.title, c.at, c.touches FROM project_change c JOIN account a ON a.id = c.account WHERE c.project = ? AND c.revision > ? ORDER BY c.revision DESC',
            [$this->project->toBinary(), $this->revision],
        ) as [$name, $title, $at, $touches]) {
            foreach (JsonValue::parse(Raw::text($touches))->items() as $touch) {
                if ($touch->get('type')->text() === $class::kind()->name && $touch->get('id')->text() === $id->toRfc4122()) {
                    return self::touch($name, $title, $at);
                }
            }
        }

        return null;
    }

    /** @return array{name: string, title: string, at: string} */
    private static function touch(mixed $name, mixed $title, mixed $at): array
    {
        return [
            'name' => Raw::text($name),
            'title' => Raw::text($title),
            'at' => (new \DateTimeImmutable(Raw::text($at)))->format(\DATE_ATOM),
        ];
    }

    /** @return array<string, true> */
    private function others(): array
    {
        if (null !== $this->others) {
            return $this->others;
        }
        $this->others = [];
        $changes = $this->connection->iterateColumn(
            'SELECT touches FROM project_change WHERE project = ? AND revision > ? AND NOT (account = ? AND id IN (?))',
            [
                $this->project->toBinary(),
                $this->revision,
                $this->user->toBinary(),
                array_map(static fn (Uuid $id): string => $id->toBinary(), $this->after),
            ],
            [3 => ArrayParameterType::BINARY],
        );
        foreach ($changes as $touches) {
            foreach (JsonValue::parse(\is_string($touches) ? $touches : '[]')->items() as $touch) {
                $this->others[$touch->get('type')->text().'/'.$touch->get('id')->text()] = true;
            }
        }

        return $this->others;
    }
}
