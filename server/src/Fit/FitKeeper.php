<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Fitting\Exception\NothingToFit;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Server\Change\Follower;
use Plinth\Server\Change\Occasion;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\DependencyInjection\Attribute\AutowireIterator;
use Symfony\Component\Uid\Uuid;

/** Keeps each drawing's fit in step with what is stated about it. */
final readonly class FitKeeper implements Follower
{
    /** @param iterable<Traced> $traced */
    public function __construct(private EntityManagerInterface $entities, #[AutowireIterator(Traced::class)] private iterable $traced)
    {
    }

    public static function place(): int
    {
        return 10;
    }

    /** A drawing about which nothing is stated keeps its lower left corner at the origin when it is cut anew. */
    private function corner(Workspace $workspace, Drawing $drawing): void
    {
        $before = $workspace->was(Drawing::class, $drawing->id()) ?? [];
        $after = $drawing->values();
        $row = $workspace->get(DrawingFit::class, $drawing->id());
        $outline = ['left' => true, 'top' => true, 'width' => true, 'height' => true];
        $isCut = array_intersect_key($before, $outline) !== array_intersect_key($after, $outline);
        if (
            !$isCut
            || !$row->isGuess()
            || FitBasis::File === $row->basis()
            || [] !== $workspace->findBy(Pick::class, 'drawing', $drawing->id())
        ) {
            return;
        }
        $old = $row->pixelToMm();
        $centre = $drawing->box()->centre();
        $next = FirstGuess::cornered($drawing, $old->mmPerPixelAt($centre), $old->turnRadAt($centre));
        $workspace->set($row, DrawingFit::valuesOf($next, $row->basis(), $row->plusMinusMmPer10m()), 'fit');
        $this->carry($workspace, $drawing, $old, $next);
    }

    /**
     * Fits anew every drawing whose statements this change has touched. The first fit carries along what was traced over
     * the guess; later ones leave the tracing where it is unless told to carry it.
     */
    public function follow(Workspace $workspace, Occasion $occasion): void
    {
        if (Occasion::Replay === $occasion) {
            return;
        }
        $workspace->flush();
        $drawings = [];
        foreach ($workspace->before() as [$class, $id, $before]) {
            $row = $workspace->find($class, $id);
            if (is_subclass_of($class, Statement::class)) {
                $drawings[(string) ($before['drawing'] ?? '')] = true;
                $drawings[$row instanceof Statement ? $row->drawing()->toRfc4122() : ''] = true;
                if ($row instanceof KnownLength && $row->isOfWholePage() || true === ($before['wholePage'] ?? null)) {
                    $drawings += $this->ofSamePage(
                        $workspace,
                        (string) ($before['drawing'] ?? ($row instanceof Statement ? $row->drawing()->toRfc4122() : '')),
                    );
                }
            }
        }
        unset($drawings['']);
        foreach ($workspace->touched(Drawing::class) as $drawing) {
            Lock::refuseMoving($workspace, $drawing);
            $before = $workspace->was(Drawing::class, $drawing->id()) ?? [];
            if (null === $workspace->find(DrawingFit::class, $drawing->id())) {
                $workspace->add(DrawingFit::class, $drawing->id(), $this->firstValues($workspace, $drawing), 'fit');
            } elseif (($before['page'] ?? null) !== $drawing->page()->toRfc4122()) {
                continue; // on a newer page its fit has come along already
            } elseif ($this->turn($workspace, $drawing) || $this->shapeChanged($workspace, $drawing)) {
                $drawings[$drawing->id()->toRfc4122()] = true;
            } else {
                $this->corner($workspace, $drawing);
            }
        }
        foreach (array_keys($drawings) as $id) {
            $drawing = $workspace->find(Drawing::class, Uuid::fromString($id));
            if (null !== $drawing) {
                if (Lock::holds($workspace, $drawing)) {
                    Lock::refuseStating($workspace, $drawing);
                    continue; // what another drawing of the page has learnt does not move it
                }
                $this->refitDrawing($workspace, $drawing, Occasion::WorkCarrying === $occasion);
                $this->hintNeighbours($workspace, $drawing);
            }
        }
    }

    /** @return array<string, true> ids of the drawings on the page of this one */
    private function ofSamePage(Workspace $workspace, string $drawing): array
    {
        $row = '' === $drawing ? null : $workspace->find(Drawing::class, Uuid::fromString($drawing));

        return null !== $row ? array_fill_keys(
            array_map(static fn (Drawing $d): string => $d->id()->toRfc4122(), $workspace->findBy(Drawing::class, 'page', $row->page())),
            true,
        ) : [];
    }

    /**
     * A new drawing on a page whose other drawings are trued takes their scale and turn as a hint.
     *
     * @return array<string, scalar|null>
     */
    private function firstValues(Workspace $workspace, Drawing $drawing): array
    {
        foreach ($workspace->findBy(Drawing::class, 'page', $drawing->page()) as $other) {
            $fit = $workspace->find(DrawingFit::class, $other->id());
            if (null !== $fit && FitBasis::Lengths === $fit->basis()) {
                return FirstGuess::fromNeighbour($drawing, $other, $fit);
            }
        }

        return FirstGuess::values($workspace->get(Page::class, $drawing->page()), $drawing);
    }

    /** Drawings of one page share its scale: what one of them has found out is a hint for those about which nothing is stated. */
    private function hintNeighbours(Workspace $workspace, Drawing $drawing): void
    {
        $fit = $workspace->get(DrawingFit::class, $drawing->id());
        if (FitBasis::Lengths !== $fit->basis()) {
            return;
        }
        foreach ($workspace->findBy(Drawing::class, 'page', $drawing->page()) as $other) {
            $row = $workspace->find(DrawingFit::class, $other->id());
            if (
                !$other->id()->equals($drawing->id())
                && null !== $row
                && $row->isGuess()
                && !$other->isLocked()
                && [] === $workspace->findBy(GridPick::class, 'drawing', $other->id())
            ) {
                $old = $row->pixelToMm();
                $workspace->set($row, FirstGuess::fromNeighbour($other, $drawing, $fit), 'fit');
                $this->carry($workspace, $other, $old, $row->pixelToMm());
            }
        }
    }

    /**
     * Quarter turns turn the picture and what is traced over it about the drawing's middle; directions that were stated turn along.
     *
     * @return bool whether there was anything to turn
     */
    private function turn(Workspace $workspace, Drawing $drawing): bool
    {
        $before = $workspace->was(Drawing::class, $drawing->id())['turns'] ?? null;
        if (!\is_int($before) || $before === $drawing->turns()) {
            return false;
        }
        $quarters = ($drawing->turns() - $before + 4) % 4;
        $row = $workspace->get(DrawingFit::class, $drawing->id());
        $old = $row->pixelToMm();
        $centre = $drawing->box()->centre();
        $next = $row->isGuess() && FitBasis::Page !== $row->basis()
            ? FirstGuess::cornered($drawing, $old->mmPerPixelAt($centre), $old->turnRadAt($centre) + deg2rad(90.0 * $quarters))
            : $old->turned(deg2rad(90.0 * $quarters), $old->toMm($centre));
        $workspace->set($row, DrawingFit::valuesOf($next, $row->basis(), $row->plusMinusMmPer10m()), 'fit');
        $this->carry($workspace, $drawing, $old, $next);
        if (1 === $quarters % 2) {
            foreach ($workspace->findBy(GridPick::class, 'drawing', $drawing->id()) as $line) {
                $workspace->set($line, ['axis' => $line->axisAfterQuarter()->value], 'turns');
            }
            foreach ($workspace->findBy(KnownLength::class, 'drawing', $drawing->id()) as $length) {
                $along = $length->values()['along'];
                $workspace->set($length, ['along' => 'x' === $along ? 'y' : ('y' === $along ? 'x' : $along)], 'turns');
            }
        }

        return [] !== $workspace->findBy(Pick::class, 'drawing', $drawing->id());
    }

    private function refitDrawing(Workspace $workspace, Drawing $drawing, bool $carryTracing): void
    {
        $row = $workspace->get(DrawingFit::class, $drawing->id());
        $workspace->flush();
        $statements = Statements::of($this->entities, $drawing);
        $page = $statements->page;
        $old = $row->pixelToMm();
        $wasGuess = $row->isGuess();
        $fit = self::fitOf($drawing, $statements, $this->start($statements, $drawing, $row));
        $basis = $fit->determined->scale ? FitBasis::Lengths : ($wasGuess ? $row->basis() : FirstGuess::basis($page));
        $map = $this->levelled($workspace, $drawing, $fit->pixelToMm);
        $workspace->set($row, DrawingFit::valuesOf($map, $basis, $fit->plusMinusMmPer10m, $fit->model->value), 'fit');
        if ($wasGuess || $carryTracing) {
            $this->carry($workspace, $drawing, $old, $map);
        }
    }

    /** Level marks whose height is stated raise or lower the drawing onto it, all of them together. */
    private function levelled(Workspace $workspace, Drawing $drawing, PixelToMm $map): PixelToMm
    {
        $off = [];
        foreach ($workspace->findBy(LevelMark::class, 'drawing', $drawing->id()) as $mark) {
            $stated = $mark->statedMm();
            if (null !== $stated) {
                $pick = $workspace->get(Pick::class, $mark->pick());
                $off[] = $stated - $map->toMm(new PixelPoint($pick->x(), $pick->y()))->y;
            }
        }

        return [] === $off ? $map : $map->shifted(0.0, array_sum($off) / \count($off));
    }

    /** By the drawing's own model; where the statements left do not determine it, by the simplest. */
    public static function fitOf(Drawing $drawing, Statements $statements, FitStart $start): Fit
    {
        try {
            return (new Fitter($drawing->shape()))->fit($statements->observations, $statements->frame, $start);
        } catch (NothingToFit $e) {
            return Model::Similar === $drawing->shape()->model() ? throw $e : (new Fitter())->fit(
                $statements->observations,
                $statements->frame,
                $start,
            );
        }
    }

    /** What the fit may do to the picture, or what the drawing says of its scale. */
    private function shapeChanged(Workspace $workspace, Drawing $drawing): bool
    {
        $before = $workspace->was(Drawing::class, $drawing->id());
        $shape = ['model' => true, 'ownFactor' => true, 'statedScale' => true, 'statedPaper' => true, 'keepsSize' => true];

        return null !== $before && array_intersect_key($before, $shape) !== array_intersect_key($drawing->values(), $shape);
    }

    /** With the last length gone the scale goes back to the guess rather than staying at what nothing supports. */
    private function start(Statements $statements, Drawing $drawing, DrawingFit $row): FitStart
    {
        $old = $row->pixelToMm();
        $frame = $statements->frame;
        $observations = $statements->observations;
        if ([] !== $observations->used() || [] !== $observations->rectangles || null !== $observations->scale || $row->isGuess()) {
            return FitStart::from($old, $frame);
        }

        return FitStart::from(
            PixelToMm::similar(
                FirstGuess::of($statements->page, $drawing)->mmPerPixelAt($frame->centre),
                $old->turnRadAt($frame->centre),
                $frame->centre,
                $old->toMm($frame->centre),
            ),
            $frame,
        );
    }

    private function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        foreach ($this->traced as $traced) {
            $traced->carry($workspace, $drawing, $old, $next);
        }
    }
}
