<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\DBAL\ArrayParameterType;
use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;
use Plinth\Server\Project\Cover;
use Symfony\Component\Uid\Uuid;

/** The first page that a project was given. */
final readonly class FirstPageCover implements Cover
{
    public function __construct(private Connection $connection)
    {
    }

    public function of(array $projects): array
    {
        $covers = [];
        $rows = $this->connection->iterateNumeric(
            'SELECT p.project, p.id FROM page p JOIN (SELECT project, MIN(id) AS id FROM page WHERE project IN (?) GROUP BY project) f ON f.project = p.project AND f.id = p.id WHERE p.has_preview = 1',
            [array_map(static fn (Uuid $id): string => $id->toBinary(), $projects)],
            [ArrayParameterType::BINARY],
        );
        foreach ($rows as [$project, $page]) {
            $covers[Raw::id($project)] = Raw::id($page);
        }

        return $covers;
    }
}
