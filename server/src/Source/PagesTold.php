<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;

/** How far the pictures of pages are. */
final readonly class PagesTold implements Teller
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    public static function name(): string
    {
        return 'pages';
    }

    public function tell(Telling $about): string
    {
        $pages = $this->entities->getRepository(Page::class)->findBy(['project' => $about->project->id()]);

        return json_encode(array_map(static fn (Page $p): array => $p->progress(), $pages), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
    }
}
