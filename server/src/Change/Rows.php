<?php

declare(strict_types=1);

namespace Plinth\Server\Change;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\ORM\EntityManagerInterface;
use Symfony\Bridge\Doctrine\Types\UuidType;
use Symfony\Component\Uid\Uuid;

/** Many rows of a project by one statement, where asking for each would take as many. */
final class Rows
{
    private const AT_ONCE = 500;

    /**
     * Rows whose field has one of these values.
     *
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     * @param list<Uuid> $values
     *
     * @return list<T>
     */
    public static function with(EntityManagerInterface $entities, Uuid $project, string $class, string $field, array $values): array
    {
        $found = [];
        foreach (array_chunk($values, self::AT_ONCE) as $some) {
            $rows = $entities->createQueryBuilder()->select('r')->from($class, 'r')
                ->where('r.project = :project')->andWhere("r.$field IN (:values)")
                ->setParameter('project', $project, UuidType::NAME)->setParameter(
                    'values',
                    array_map(static fn (Uuid $v): string => $v->toBinary(), $some),
                    ArrayParameterType::BINARY,
                )
                ->getQuery()->getResult();
            foreach (\is_array($rows) ? $rows : [] as $row) {
                if ($row instanceof $class) {
                    $found[] = $row;
                }
            }
        }

        return $found;
    }

    /**
     * Ids of the rows whose field has one of these values, each with that value; no row is read for it.
     *
     * @param class-string<ProjectRow> $class
     * @param list<Uuid> $values
     *
     * @return list<array{Uuid, Uuid}> id and value
     */
    public static function idsWith(EntityManagerInterface $entities, Uuid $project, string $class, string $field, array $values): array
    {
        $about = $entities->getClassMetadata($class);
        $column = $about->getColumnName($field);
        $found = [];
        foreach (array_chunk($values, self::AT_ONCE) as $some) {
            $sql = "SELECT id, $column FROM {$about->getTableName()} WHERE project = ? AND $column IN (".implode(
                ',',
                array_fill(0, \count($some), '?'),
            ).')';
            foreach ($entities->getConnection()->iterateNumeric($sql, [
                $project->toBinary(),
                ...array_map(static fn (Uuid $v): string => $v->toBinary(), $some),
            ]) as [$id, $value]) {
                if (\is_string($id) && \is_string($value)) {
                    $found[] = [Uuid::fromBinary($id), Uuid::fromBinary($value)];
                }
            }
        }

        return $found;
    }
}
