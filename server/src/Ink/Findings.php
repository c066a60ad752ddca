<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Job;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Plinth\Server\Source\InkOfPages;
use Plinth\Server\Source\Page;
use Symfony\Component\Uid\Uuid;

/** Searches of drawings, and what they found. */
final readonly class Findings
{
    public function __construct(private EntityManagerInterface $entities, private Connection $connection, private InkOfPages $ink)
    {
    }

    /** What a search depends on: the part of the page, and the fit where it is a search of the building; what is written is on the page. */
    public function basis(Drawing $drawing, FindingKind $kind): string
    {
        $box = $drawing->box();
        $on = [$drawing->page()->toRfc4122(), $box->left, $box->top, $box->width, $box->height];
        if (FindingKind::Figures !== $kind) {
            $map = $this->fit($drawing)->pixelToMm();
            $on = [...$on, array_map(static fn (float $m): float => round($m, 9), $map->matrix()), $map->lens?->k];
        }

        return sha1(json_encode($on, \JSON_THROW_ON_ERROR));
    }

    /** The search as things are now, or null where there is none. */
    public function of(Drawing $drawing, FindingKind $kind): ?Finding
    {
        $finding = $this->entities->find(Finding::class, [
            'project' => $drawing->project(),
            'drawing' => $drawing->id(),
            'kind' => $kind->value,
        ]);

        return null === $finding || $finding->basis !== $this->basis($drawing, $kind) ? null : $finding;
    }

    /**
     * What a search would be made from now.
     *
     * @throws Refusal where there is nothing to search
     */
    public function basisOf(RowId $about, FindingKind $kind): string
    {
        $drawing = $this->entities->find(Drawing::class, $about->criteria()) ?? throw Refusal::notFound();
        $this->inkOf($drawing);

        return $this->basis($drawing, $kind);
    }

    /** @param list<list<float>> $refused two places on the page each, px */
    public function refuse(Drawing $drawing, FindingKind $kind, array $refused): void
    {
        $this->connection->executeStatement(
            'UPDATE finding SET refused = ? WHERE project = ? AND drawing = ? AND kind = ?',
            [json_encode($refused, \JSON_THROW_ON_ERROR), ...$drawing->key()->binary(), $kind->value],
        );
        $this->entities->clear();
    }

    /**
     * Does a search, unless it is not wanted any more. What is stopped half way leaves nothing behind.
     *
     * @param callable(Drawing, DrawingFit, InkOfPage, callable(float): void): array<string, list<array<string, mixed>>> $search told how far it is by calling back, which ends it when it was stopped
     */
    public function work(FindingKind $kind, Job $job, Attempt $attempt, callable $search): void
    {
        $drawing = $this->entities->find(Drawing::class, $job->about->criteria());
        $fit = $this->entities->find(DrawingFit::class, $job->about->criteria());
        $ink = null === $drawing ? null : $this->ink->of($drawing);
        if (null === $drawing || null === $fit || null === $ink || $this->basis($drawing, $kind) !== $job->basis) {
            return; // it would be made from something else by now
        }
        $found = json_encode($search($drawing, $fit, $ink, $attempt->goesOn(...)), \JSON_THROW_ON_ERROR);
        $attempt->write(fn () => $this->connection->executeStatement(
            'INSERT INTO finding (project, drawing, kind, basis, found, refused) VALUES (?, ?, ?, ?, ?, \'[]\') ON DUPLICATE KEY UPDATE basis = VALUES(basis), found = VALUES(found)',
            [...$job->about->binary(), $kind->value, $job->basis, $found],
        ));
    }

    public function fit(Drawing $drawing): DrawingFit
    {
        return $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();
    }

    public function inkOf(Drawing $drawing): InkOfPage
    {
        return $this->ink->of($drawing) ?? throw Refusal::conflict(
            'not-ready',
            'This page is still being read: its ink cannot be looked at yet.',
        );
    }

    public function refuseWithoutSide(RowId $about): void
    {
        $this->sideOf($this->entities->find(Drawing::class, $about->criteria()) ?? throw Refusal::notFound());
    }

    public function sideOf(Drawing $drawing): Uuid
    {
        return $drawing->side() ?? throw Refusal::conflict('not-a-side', 'Only drawings that stand on a side show the openings of a facade.', 'drawing');
    }

    /** Of the building itself, and no drawing of it. */
    public function isPhotograph(Drawing $drawing): bool
    {
        return true === $this->entities->find(Page::class, $drawing->beside($drawing->page())->criteria())?->isScene();
    }

    public function refuseWithoutStorey(RowId $about): void
    {
        $this->storeyOf($this->entities->find(Drawing::class, $about->criteria()) ?? throw Refusal::notFound());
    }

    public function storeyOf(Drawing $drawing): Uuid
    {
        return $drawing->storey() ?? throw Refusal::conflict('not-a-plan', 'Only drawings that lie on a storey show its walls.', 'drawing');
    }
}
