<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\RowId;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Uid\Uuid;

#[AsCommand('plinth:plan:derive', 'Derives the shapes of storeys that have none, as after a migration: nobody who only looks has to write.')]
final readonly class DeriveMissing
{
    public function __construct(private Connection $connection, private DerivedShapes $shapes)
    {
    }

    public function __invoke(): int
    {
        $missing = $this->connection->fetchAllNumeric(
            'SELECT s.project, s.id, p.head FROM storey s JOIN project p ON p.id = s.project LEFT JOIN derived_storey d ON d.project = s.project AND d.storey = s.id WHERE d.storey IS NULL',
        );
        foreach ($missing as [$project, $storey, $head]) {
            $this->connection->transactional(
                fn () => $this->shapes->update(
                    new RowId(Uuid::fromBinary(Raw::text($project)), Uuid::fromBinary(Raw::text($storey))),
                    (int) Raw::number($head),
                    new TouchedLines(),
                ),
            );
        }

        return 0;
    }
}
