<?php

declare(strict_types=1);

namespace Plinth\Server\Project;

use Doctrine\DBAL\Connection;
use Plinth\Server\Change\Raw;

/** What was done since, by whom: the latest few. */
final readonly class NewsTold implements Teller
{
    private const MOST = 5;

    public function __construct(private Connection $connection)
    {
    }

    public static function name(): string
    {
        return 'news';
    }

    public function tell(Telling $about): string
    {
        if (null === $about->since || $about->since >= $about->project->head()) {
            return '[]';
        }
        $news = [];
        foreach ($this->connection->iterateNumeric(
            'SELECT c.id, c.account, a.name, c.title FROM project_change c JOIN account a ON a.id = c.account WHERE c.project = ? AND c.revision > ? ORDER BY c.revision DESC LIMIT '.self::MOST,
            [$about->project->id()->toBinary(), $about->since],
        ) as [$id, $account, $name, $title]) {
            $news[] = ['change' => Raw::id($id), 'account' => Raw::id($account), 'name' => Raw::text($name), 'title' => Raw::text($title)];
        }

        return json_encode($news, \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE);
    }
}
