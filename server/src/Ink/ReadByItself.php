<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\Aftermath;
use Plinth\Server\Change\RowId;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\Lane;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Making\OncePageIsMade;
use Plinth\Server\Source\Page;

/** What is written on a drawing is read before anybody asks, so that it is there once the drawing is trued up. */
final readonly class ReadByItself implements Aftermath, OncePageIsMade
{
    public function __construct(private Findings $findings, private EntityManagerInterface $entities, private Jobs $jobs)
    {
    }

    public function made(RowId $page): void
    {
        foreach ($this->entities->getRepository(Drawing::class)->findBy(['project' => $page->project, 'page' => $page->id]) as $drawing) {
            $this->read($drawing);
        }
    }

    /** A drawing that was cut anew shows something else. */
    public function after(Workspace $workspace, int $revision): void
    {
        foreach ($workspace->touched(Drawing::class) as $drawing) {
            $was = $workspace->was(Drawing::class, $drawing->id());
            $of = static fn (array $values): array => array_intersect_key($values, ['page' => 0, 'left' => 0, 'top' => 0, 'width' => 0, 'height' => 0]);
            $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());
            if ((null === $was || $of($was) !== $of($drawing->values())) && '' !== ($page?->pictures() ?? '')) {
                $this->read($drawing);
            }
        }
    }

    private function read(Drawing $drawing): void
    {
        // Where somebody has said how large it is already, nothing waits for it; on a photograph of a building nothing is written.
        $page = $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria());
        if (true === $page?->isScene()) {
            return;
        }
        $fit = $this->entities->find(DrawingFit::class, $drawing->key()->criteria());
        if (true === $fit?->isGuess() && null === $this->findings->of($drawing, FindingKind::Figures)) {
            $this->jobs->ask(ReadFigures::class, $drawing->key(), $this->findings->basis($drawing, FindingKind::Figures), lane: Lane::Idle);
        }
    }
}
