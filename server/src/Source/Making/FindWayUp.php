<?php

declare(strict_types=1);

namespace Plinth\Server\Source\Making;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Geometry\PixelBox;
use Plinth\Core\Ink\Reading\WayUp;
use Plinth\Server\Change\Raw;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Job\JobKind;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\InkOfPages;
use Plinth\Server\Source\Page;
use Plinth\Server\Source\Reading\Recogniser;

/** Finds which way up a page is read, once it can be worked on, and keeps it with what the import found. */
final readonly class FindWayUp implements JobKind
{
    public function __construct(
        private Connection $connection,
        private EntityManagerInterface $entities,
        private InkOfPages $ink,
        private Recogniser $recogniser,
    ) {
    }

    public static function name(): string
    {
        return 'find-way-up';
    }

    public static function lane(): Lane
    {
        return Lane::Slow;
    }

    public function run(Job $job, Attempt $attempt): void
    {
        $page = $this->entities->find(Page::class, $job->about->criteria());
        $ink = null === $page ? null : $this->ink->of($page);
        if (null === $page || null === $ink) {
            return; // removed, or read anew meanwhile: that asks again
        }
        $read = [];
        $box = new PixelBox(0.0, 0.0, $page->width(), $page->height());
        foreach (WayUp::pictures($ink, $box, static fn (float $done) => $attempt->goesOn()) as $turns => $picture) {
            $read[$turns] = $this->recogniser->words($picture, $attempt->goesOn(...));
        }
        $way = WayUp::of($read);
        $pictures = $page->pictures();
        $attempt->write(function () use ($job, $way, $pictures): void {
            $row = $this->connection->fetchAssociative(
                'SELECT made, pictures FROM page WHERE project = ? AND id = ? FOR UPDATE',
                $job->about->binary(),
            );
            $made = false === $row || Raw::text($row['pictures']) !== $pictures ? null : json_decode(Raw::text($row['made']), true);
            if (\is_array($made)) {
                $made['wayUp'] = null === $way ? null : ['turns' => $way->turns, 'sure' => $way->isSure];
                $this->connection->update(
                    'page',
                    ['made' => json_encode($made, \JSON_THROW_ON_ERROR)],
                    ['project' => $job->about->project->toBinary(), 'id' => $job->about->id->toBinary()],
                );
            }
        });
    }
}
