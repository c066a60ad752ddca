<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\JobState;
use Plinth\Server\Project\Teller;
use Plinth\Server\Project\Telling;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Making\FindSkew;
use Plinth\Server\Source\Page;
use Symfony\Component\Uid\Uuid;
use Symfony\Contracts\Cache\CacheInterface;

/** Fits of the drawings that are told of, about which something is stated that is, or whose ink has just been looked at. */
final readonly class FitsTold implements Teller
{
    public function __construct(
        private EntityManagerInterface $entities,
        private FitReport $reports,
        private CacheInterface $cache,
        private Jobs $jobs,
    ) {
    }

    public static function name(): string
    {
        return 'fits';
    }

    public function tell(Telling $about): string
    {
        $fits = [];
        $stated = null === $about->since ? self::stated($about) : [];
        foreach (array_keys($this->drawings($about)) as $id) {
            $key = $about->project->beside(Uuid::fromString($id))->criteria();
            $drawing = $this->entities->find(Drawing::class, $key);
            $fit = $this->entities->find(DrawingFit::class, $key);
            if (null !== $drawing && null !== $fit) {
                $report = fn (): string => json_encode(
                    $this->reports->of($fit, $drawing),
                    \JSON_THROW_ON_ERROR | \JSON_UNESCAPED_UNICODE | \JSON_UNESCAPED_SLASHES,
                );
                $basis = $stated[$drawing->page()->toRfc4122()] ?? null;
                // Whoever opens a project finds the reports of the drawings of which nothing has changed.
                $fits[] = null === $basis ? $report() : $this->cache->get('fit.'.sha1($id.$basis), $report);
            }
        }

        return '['.implode(',', $fits).']';
    }

    /** @return array<string, string> by page all that the reports of its drawings follow from, where all of it is told: rows as they are */
    private static function stated(Telling $about): array
    {
        $pages = [];
        foreach ($about->rowsOf(Drawing::class) as $drawing) {
            $pages[$drawing->id()->toRfc4122()] = $drawing->page()->toRfc4122();
        }
        $rows = [];
        foreach ($about->rows as $row) {
            $page = match (true) {
                $row instanceof Page => $row->id()->toRfc4122(),
                $row instanceof Drawing, $row instanceof DrawingFit => $pages[$row->id()->toRfc4122()] ?? '',
                $row instanceof Statement => $pages[$row->drawing()->toRfc4122()] ?? '',
                default => null,
            };
            if (null !== $page) {
                $rows[$page][] = [$row->describe(), $row instanceof Page ? $row->leaning()?->told() : null];
            }
        }

        return array_map(static fn (array $some): string => json_encode($some, \JSON_THROW_ON_ERROR), $rows);
    }

    /** @return array<string, true> their ids */
    private function drawings(Telling $about): array
    {
        $ids = [];
        foreach ($about->rows as $row) {
            $id = match (true) {
                $row instanceof Drawing, $row instanceof DrawingFit => $row->id(),
                $row instanceof Statement => $row->drawing(),
                default => null,
            };
            if (null !== $id) {
                $ids[$id->toRfc4122()] = true;
            }
        }
        // Of a statement that is gone the drawing still has a fit to be told.
        foreach ($about->gone as [$class, , $values]) {
            if (is_subclass_of($class, Statement::class) && \is_string($values['drawing'] ?? null)) {
                $ids[$values['drawing']] = true;
            }
        }

        return $ids + $this->lookedAt($about);
    }

    /** @return array<string, true> ids of drawings whose page's lines have just been found to lean or not: that tells on their ± */
    private function lookedAt(Telling $about): array
    {
        $after = $about->after();
        $ids = [];
        foreach (null === $after ? [] : $this->jobs->moved($about->project->id(), $after) as $progress) {
            if (FindSkew::name() === $progress->kind && JobState::Done === $progress->state) {
                $of = ['project' => $about->project->id(), 'page' => $progress->about->id];
                foreach ($this->entities->getRepository(Drawing::class)->findBy($of) as $drawing) {
                    $ids[$drawing->id()->toRfc4122()] = true;
                }
            }
        }

        return $ids;
    }
}
