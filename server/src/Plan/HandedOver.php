<?php

declare(strict_types=1);

namespace Plinth\Server\Plan;

use Doctrine\DBAL\Connection;
use Plinth\Server\Project\Project;
use Plinth\Server\Project\Storey;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;

/** How a file leaves: named after what is in it, and with what whoever gets it should know. */
final readonly class HandedOver
{
    private const UNTRUED = 'Sizes are a guess: a drawing that this was traced over is not trued up.';

    public function __construct(private Connection $connection)
    {
    }

    /** @return list<string> nothing untrued is handed over without saying so */
    public function remarks(Storey $storey): array
    {
        $guessed = $this->connection->fetchOne(
            'SELECT 1 FROM node n JOIN fit f ON f.project = n.project AND f.id = n.drawing WHERE n.project = ? AND n.storey = ? AND f.plus_minus_mm_per10m IS NULL LIMIT 1',
            $storey->key()->binary(),
        );

        return false === $guessed ? [] : [self::UNTRUED];
    }

    /** @param string $of name of the storey or side that it is of; none for the whole building */
    public function file(string $content, string $type, Project $project, string $of, string $suffix): Response
    {
        return new Response($content, 200, $this->headers($type, $project, $of, $suffix));
    }

    /** @return array<string, string> */
    public function headers(string $type, Project $project, string $of, string $suffix): array
    {
        $name = trim(
            (string) preg_replace(
                '/[^A-Za-z0-9]+/',
                '-',
                (string) iconv('UTF-8', 'ASCII//TRANSLIT//IGNORE', $project->name().' '.$of),
            ),
            '-',
        );

        return [
            'Content-Type' => $type,
            'Cache-Control' => 'no-store',
            'Content-Disposition' => HeaderUtils::makeDisposition(
                HeaderUtils::DISPOSITION_ATTACHMENT,
                ('' === $name ? 'plan' : strtolower($name)).'.'.$suffix,
            ),
        ];
    }
}
