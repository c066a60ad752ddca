<?php

declare(strict_types=1);

namespace Plinth\Server\Ink;

use Doctrine\DBAL\Connection;
use Doctrine\ORM\EntityManagerInterface;
use Plinth\Server\Change\RowId;
use Plinth\Server\Fit\DrawingFit;
use Plinth\Server\Http\Refusal;
use Plinth\Server\Job\Attempt;
use Plinth\Server\Job\Jobs;
use Plinth\Server\Job\TryAgain;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\InkOfPage;
use Plinth\Server\Source\PageInk;
use Plinth\Server\Source\PageState;
use Plinth\Server\Source\Reading\PictureFailure;
use Symfony\Component\Uid\Uuid;

/** Searches of drawings: asked for, how far they are, stopped, and what they found. */
final readonly class Findings
{
    /** seconds between two looks at whether the work is still wanted */
    private const LOOK = 0.2;

    public function __construct(private EntityManagerInterface $entities, private Connection $connection, private PageInk $ink, private Jobs $jobs)
    {
    }

    public static function basis(Drawing $drawing, DrawingFit $fit): string
    {
        $box = $drawing->box();
        $map = $fit->pixelToMm();

        return sha1(json_encode([$drawing->page()->toRfc4122(), $box->left, $box->top, $box->width, $box->height, array_map(static fn (float $m): float => round($m, 9), $map->matrix()), $map->lens?->k], \JSON_THROW_ON_ERROR));
    }

    /** The search for the present fit, or null where there is none. */
    public function of(Drawing $drawing, FindingKind $kind): ?Finding
    {
        $finding = $this->entities->find(Finding::class, ['project' => $drawing->project(), 'drawing' => $drawing->id(), 'kind' => $kind->value]);

        return null === $finding || $finding->basis !== self::basis($drawing, $this->fit($drawing)) ? null : $finding;
    }

    public function ask(Drawing $drawing, FindingKind $kind): void
    {
        $this->inkOf($drawing);
        $finding = $this->of($drawing, $kind);
        if (null !== $finding && \in_array($finding->state, [PageState::Waiting, PageState::Working], true)) {
            return;
        }
        $basis = self::basis($drawing, $this->fit($drawing));
        $this->connection->executeStatement(
            'INSERT INTO finding (project, drawing, kind, basis, state, done, message, found, refused) VALUES (?, ?, ?, ?, ?, 0, \'\', \'{}\', \'[]\') ON DUPLICATE KEY UPDATE basis = VALUES(basis), state = VALUES(state), done = 0, message = \'\', found = \'{}\'',
            [...$drawing->key()->binary(), $kind->value, $basis, PageState::Waiting->value],
        );
        $this->jobs->ask(FindingKind::Walls === $kind ? FindWalls::class : ReadFigures::class, $drawing->key(), ['basis' => $basis]);
        $this->entities->clear();
    }

    public function stop(Drawing $drawing, FindingKind $kind): void
    {
        $this->connection->executeStatement('UPDATE finding SET state = ?, found = \'{}\' WHERE project = ? AND drawing = ? AND kind = ? AND state IN (?, ?)', [PageState::Stopped->value, ...$drawing->key()->binary(), $kind->value, PageState::Waiting->value, PageState::Working->value]);
        $this->entities->clear();
    }

    /** @param list<list<float>> $refused two places on the page each, px */
    public function refuse(Drawing $drawing, FindingKind $kind, array $refused): void
    {
        $this->connection->executeStatement('UPDATE finding SET refused = ? WHERE project = ? AND drawing = ? AND kind = ?', [json_encode($refused, \JSON_THROW_ON_ERROR), ...$drawing->key()->binary(), $kind->value]);
        $this->entities->clear();
    }

    /**
     * Does a search, unless it is not wanted any more. What is stopped half way leaves nothing behind.
     *
     * @param callable(Drawing, DrawingFit, InkOfPage, callable(float): void): array<string, list<array<string, mixed>>> $search told how far it is by calling back, which ends it when it was stopped
     */
    public function work(FindingKind $kind, RowId $id, string $basis, Attempt $attempt, callable $search): void
    {
        $this->entities->clear();
        $drawing = $this->entities->find(Drawing::class, $id->criteria());
        $fit = $this->entities->find(DrawingFit::class, $id->criteria());
        $ink = null === $drawing ? null : $this->ink->of($drawing);
        if (null === $drawing || null === $fit || null === $ink || self::basis($drawing, $fit) !== $basis) {
            return; // another fit is asked for by now
        }
        $key = [...$id->binary(), $kind->value, $basis];
        // A search whose worker was killed comes again while it says it is being worked on.
        if (1 !== $this->connection->executeStatement('UPDATE finding SET state = ?, done = 0.001 WHERE project = ? AND drawing = ? AND kind = ? AND basis = ? AND state IN (?, ?)', [PageState::Working->value, ...$key, PageState::Waiting->value, PageState::Working->value])
            && PageState::Working->value !== $this->connection->fetchOne('SELECT state FROM finding WHERE project = ? AND drawing = ? AND kind = ? AND basis = ?', $key)) {
            return;
        }
        $last = 0.0;
        $onProgress = function (float $done) use ($key, $attempt, &$last): void {
            $attempt->goesOn();
            if (microtime(true) - $last < self::LOOK) {
                return;
            }
            $last = microtime(true);
            $this->connection->executeStatement('UPDATE finding SET done = ? WHERE project = ? AND drawing = ? AND kind = ? AND basis = ?', [min(0.999, $done), ...$key]);
            if (PageState::Working->value !== $this->connection->fetchOne('SELECT state FROM finding WHERE project = ? AND drawing = ? AND kind = ? AND basis = ?', $key)) {
                throw new SearchStopped();
            }
        };
        try {
            $found = $search($drawing, $fit, $ink, $onProgress);
            $attempt->write(fn () => $this->connection->executeStatement('UPDATE finding SET state = ?, done = 1, found = ? WHERE project = ? AND drawing = ? AND kind = ? AND basis = ? AND state = ?', [PageState::Ready->value, json_encode($found, \JSON_THROW_ON_ERROR), ...$key, PageState::Working->value]));
        } catch (SearchStopped) {
            return;
        } catch (PictureFailure $e) {
            if ($e->mayTryAgain) {
                throw TryAgain::after($e->getMessage());
            }
            $attempt->write(fn () => $this->fail($kind, $id, $basis, $e->getMessage()));
        }
    }

    public function fail(FindingKind $kind, RowId $id, string $basis, string $words): void
    {
        $this->connection->executeStatement('UPDATE finding SET state = ?, message = ? WHERE project = ? AND drawing = ? AND kind = ? AND basis = ?', [PageState::Failed->value, mb_substr($words, 0, 200), ...$id->binary(), $kind->value, $basis]);
    }

    public function fit(Drawing $drawing): DrawingFit
    {
        return $this->entities->find(DrawingFit::class, $drawing->key()->criteria()) ?? throw Refusal::notFound();
    }

    public function inkOf(Drawing $drawing): InkOfPage
    {
        return $this->ink->of($drawing) ?? throw Refusal::conflict('not-ready', 'This page is still being read: its ink cannot be looked at yet.');
    }

    public function storeyOf(Drawing $drawing): Uuid
    {
        return $drawing->storey() ?? throw Refusal::conflict('not-a-plan', 'Only drawings that lie on a storey show its walls.', 'drawing');
    }
}
