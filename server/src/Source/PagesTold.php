<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Raw;
use Plinth\Server\Change\Rows;
use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;
use Symfony\Component\Uid\Uuid;

/** How far the pictures of pages are. */
final readonly class PagesTold implements Teller
{
    /** s that a transaction may take from its first statement to its end: what it has done is told all the same */
    private const LATE = 10.0;

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** @return list<Uuid> */
    private function heardOf(Telling $about): array
    {
        $ids = $this->entities->getConnection()->fetchFirstColumn('SELECT id FROM page WHERE project = ? AND told_at >= FROM_UNIXTIME(?)', [$about->project->id()->toBinary(), $about->heard - self::LATE]);

        return array_map(static fn (mixed $id): Uuid => Uuid::fromBinary(Raw::text($id)), $ids);
    }

    public static function name(): string
    {
        return 'pages';
    }

    public function tell(Telling $about): string
    {
        $pages = null === $about->since || 0.0 === $about->heard
            ? $this->entities->getRepository(Page::class)->findBy(['project' => $about->project->id()])
            : Rows::with($this->entities, $about->project->id(), Page::class, 'id', $this->heardOf($about));

        return json_encode(array_map(static fn (Page $p): array => $p->progress(), $pages), \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES);
    }
}
