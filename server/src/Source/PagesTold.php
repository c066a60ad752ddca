<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Rows;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\Progress;
use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;
use Symfony\Component\Uid\Uuid;

/** What was made of pages: of all of them, or of those that work has gone on with. */
final readonly class PagesTold implements Teller
{
    public function __construct(private EntityManagerInterface $entities, private Jobs $jobs)
    {
    }

    public static function name(): string
    {
        return 'pages';
    }

    public function tell(Telling $about): string
    {
        $project = $about->project->id();
        $after = $about->after();
        $pages = null === $after
            ? $this->entities->getRepository(Page::class)->findBy(['project' => $project])
            : Rows::with(
                $this->entities,
                $project,
                Page::class,
                'id',
                array_map(static fn (Progress $p): Uuid => $p->about->id, $this->jobs->moved($project, $after)),
            );

        return json_encode(
            array_map(static fn (Page $p): array => $p->made(), $pages),
            \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES,
        );
    }
}
