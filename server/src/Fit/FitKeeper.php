<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\FitDocument\FitWriter;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick as CoreGridPick;
use Plinth\Core\Fitting\KnownLength as CoreKnownLength;
use Plinth\Core\Fitting\Model;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\Offer;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick as CorePick;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Ink\Legibility;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Change\RowType;
use Plinth\Server\Change\Workspace;
use Plinth\Server\Plan\Node;
use Plinth\Server\Plan\Opening;
use Plinth\Server\Plan\Room;
use Plinth\Server\Plan\Wall;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;
use Symfony\Component\Uid\Uuid;

/** Keeps each drawing's fit in step with what is stated about it. */
final readonly class FitKeeper
{
    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** A drawing about which nothing is stated keeps its lower left corner at the origin when it is cut anew. */
    private function corner(Workspace $workspace, Drawing $drawing): void
    {
        $before = $workspace->before()[RowType::Drawing->value.'/'.$drawing->id()->toRfc4122()][2] ?? [];
        $after = $drawing->values();
        $row = $workspace->get(DrawingFit::class, $drawing->id());
        $outline = ['left' => true, 'top' => true, 'width' => true, 'height' => true];
        $isCut = array_intersect_key($before, $outline) !== array_intersect_key($after, $outline);
        if (!$isCut || !$row->isGuess() || FitBasis::File === $row->basis() || [] !== $workspace->findBy(Pick::class, 'drawing', $drawing->id())) {
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
    public function refit(Workspace $workspace, bool $carryTracing): void
    {
        $drawings = [];
        foreach ($workspace->before() as [$type, , $before]) {
            if (\in_array($type, [RowType::Pick, RowType::KnownLength, RowType::GridPick], true) && \is_string($before['drawing'] ?? null)) {
                $drawings[$before['drawing']] = true;
            }
        }
        foreach ($workspace->touched(RowType::Pick, RowType::KnownLength, RowType::GridPick) as $row) {
            if ($row instanceof Pick || $row instanceof KnownLength || $row instanceof GridPick) {
                $drawings[$row->drawing()->toRfc4122()] = true;
            }
        }
        foreach ($workspace->touched(RowType::Drawing) as $drawing) {
            if (!$drawing instanceof Drawing) {
                continue;
            }
            $before = $workspace->before()[RowType::Drawing->value.'/'.$drawing->id()->toRfc4122()][2] ?? [];
            if (null === $workspace->find(RowType::Fit, $drawing->id())) {
                $workspace->add(RowType::Fit, $drawing->id(), $this->firstValues($workspace, $drawing), 'fit');
            } elseif (($before['page'] ?? null) !== $drawing->page()->toRfc4122()) {
                continue; // on a newer page its fit has come along already
            } elseif ($this->turn($workspace, $drawing) || $this->modelChanged($workspace, $drawing)) {
                $drawings[$drawing->id()->toRfc4122()] = true;
            } else {
                $this->corner($workspace, $drawing);
            }
        }
        foreach (array_keys($drawings) as $id) {
            $drawing = $workspace->find(RowType::Drawing, Uuid::fromString($id));
            if ($drawing instanceof Drawing) {
                $this->refitDrawing($workspace, $drawing, $carryTracing);
                $this->hintNeighbours($workspace, $drawing);
            }
        }
    }

    /**
     * A new drawing on a page whose other drawings are trued takes their scale and turn as a hint.
     *
     * @return array<string, scalar|null>
     */
    private function firstValues(Workspace $workspace, Drawing $drawing): array
    {
        foreach ($workspace->findBy(Drawing::class, 'page', $drawing->page()) as $other) {
            $fit = $workspace->find(RowType::Fit, $other->id());
            if ($fit instanceof DrawingFit && FitBasis::Lengths === $fit->basis()) {
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
            $row = $workspace->find(RowType::Fit, $other->id());
            if (!$other->id()->equals($drawing->id()) && $row instanceof DrawingFit && $row->isGuess() && [] === $workspace->findBy(GridPick::class, 'drawing', $other->id())) {
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
        $before = $workspace->before()[RowType::Drawing->value.'/'.$drawing->id()->toRfc4122()][2]['turns'] ?? null;
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
                $workspace->set($line, ['axis' => 'x' === $line->values()['axis'] ? 'y' : 'x'], 'turns');
            }
            foreach ($workspace->findBy(KnownLength::class, 'drawing', $drawing->id()) as $length) {
                $along = $length->values()['along'];
                $workspace->set($length, ['along' => 'x' === $along ? 'y' : ('y' === $along ? 'x' : $along)], 'turns');
            }
        }

        return [] !== $workspace->findBy(Pick::class, 'drawing', $drawing->id());
    }

    /** @return array<string, mixed> the fit with its quality and advice, or the plain guess */
    public function report(DrawingFit $row, Drawing $drawing): array
    {
        $page = $this->entities->find(Page::class, $drawing->page()) ?? throw new \LogicException('A drawing has a page.');
        $lengths = $this->entities->getRepository(KnownLength::class)->findBy(['drawing' => $drawing->id()], ['id' => 'ASC']);
        $grid = $this->entities->getRepository(GridPick::class)->findBy(['drawing' => $drawing->id()], ['id' => 'ASC']);
        $picks = $this->entities->getRepository(Pick::class)->findBy(['drawing' => $drawing->id()], ['id' => 'ASC']);
        $frame = new PageFrame($page->width(), $page->height());
        $observations = $this->observations($page, $picks, $lengths, $grid);
        $start = FitStart::from($row->pixelToMm(), $frame);
        $fit = self::fit($drawing, $observations, $frame, $start);

        $legibility = Legibility::at($fit->mmPerPixel);

        return ['drawing' => $drawing->id()->toRfc4122()] + FitWriter::document($fit, Advice::on($fit, $observations, $frame), Offer::beyond($fit, $observations, $frame, $start)) + [
            'scale' => $fit->mmPerPixel / FirstGuess::paperMmPerPixel($page),
            'basis' => $row->basis()->value,
            'legibility' => ['partitionPx' => $legibility->partitionPx, 'plusMinusMm' => $legibility->plusMinusMm, 'words' => $legibility->words],
        ];
    }

    private function refitDrawing(Workspace $workspace, Drawing $drawing, bool $carryTracing): void
    {
        $page = $workspace->get(Page::class, $drawing->page());
        $row = $workspace->get(DrawingFit::class, $drawing->id());
        $frame = new PageFrame($page->width(), $page->height());
        $observations = $this->observations(
            $page,
            $workspace->findBy(Pick::class, 'drawing', $drawing->id()),
            $workspace->findBy(KnownLength::class, 'drawing', $drawing->id()),
            $workspace->findBy(GridPick::class, 'drawing', $drawing->id()),
        );
        $old = $row->pixelToMm();
        $wasGuess = $row->isGuess();
        $fit = self::fit($drawing, $observations, $frame, $this->start($observations, $page, $drawing, $row, $frame));
        $basis = $fit->determined->scale ? FitBasis::Lengths : ($wasGuess ? $row->basis() : FirstGuess::basis($page));
        $workspace->set($row, DrawingFit::valuesOf($fit->pixelToMm, $basis, $fit->plusMinusMmPer10m, $fit->model->value), 'fit');
        if ($wasGuess || $carryTracing) {
            $this->carry($workspace, $drawing, $old, $fit->pixelToMm);
        }
    }

    /** By the drawing's own model; where the statements left do not determine it, by the simplest. */
    private static function fit(Drawing $drawing, Observations $observations, PageFrame $frame, FitStart $start): Fit
    {
        try {
            return (new Fitter($drawing->model()->shape()))->fit($observations, $frame, $start);
        } catch (FittingException $e) {
            return Model::Similar === $drawing->model() ? throw $e : (new Fitter())->fit($observations, $frame, $start);
        }
    }

    private function modelChanged(Workspace $workspace, Drawing $drawing): bool
    {
        $before = $workspace->before()[RowType::Drawing->value.'/'.$drawing->id()->toRfc4122()][2] ?? null;

        return null !== $before && ($before['model'] ?? Model::Similar->value) !== $drawing->model()->value;
    }

    /** With the last length gone the scale goes back to the guess rather than staying at what nothing supports. */
    private function start(Observations $observations, Page $page, Drawing $drawing, DrawingFit $row, PageFrame $frame): FitStart
    {
        $old = $row->pixelToMm();
        $used = array_filter($observations->lengths, static fn (CoreKnownLength $l): bool => !$l->heldOut);
        if ([] !== $used || $row->isGuess()) {
            return FitStart::from($old, $frame);
        }

        return FitStart::from(PixelToMm::similar(FirstGuess::of($page, $drawing)->mmPerPixelAt($frame->centre), $old->turnRadAt($frame->centre), $frame->centre, $old->toMm($frame->centre)), $frame);
    }

    /** T_new ∘ T_old⁻¹ for what was traced over this drawing; thicknesses and widths stay as typed. */
    private function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, PixelToMm $next): void
    {
        $ratio = $next->mmPerPixelAt(new PixelPoint(0.0, 0.0)) / $old->mmPerPixelAt(new PixelPoint(0.0, 0.0));
        foreach ($workspace->findBy(Node::class, 'drawing', $drawing->id()) as $node) {
            $to = $next->toMm($old->toPixel($node->at()));
            $workspace->set($node, ['x' => $to->x, 'y' => $to->y], 'carry');
            foreach ($workspace->findBy(Wall::class, 'fromNode', $node->id()) as $wall) {
                foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
                    $workspace->set($opening, ['offset' => $opening->offset() * $ratio], 'carry');
                }
            }
        }
        foreach ($workspace->findBy(Room::class, 'drawing', $drawing->id()) as $room) {
            $to = $next->toMm($old->toPixel($room->toCore()->anchor));
            $workspace->set($room, ['x' => $to->x, 'y' => $to->y], 'carry');
        }
    }

    /**
     * @param list<Pick> $picks
     * @param list<KnownLength> $lengths
     * @param list<GridPick> $grid
     */
    private function observations(Page $page, array $picks, array $lengths, array $grid): Observations
    {
        $byId = [];
        foreach ($picks as $pick) {
            $byId[$pick->id()->toRfc4122()] = $pick;
        }
        $byRow = static fn (ProjectRow $a, ProjectRow $b): int => $a->id()->compare($b->id());
        usort($lengths, $byRow);
        usort($grid, $byRow);
        $scale = $this->scale($page, $byId, $lengths);

        return new Observations(
            array_values(array_map(static fn (Pick $p): CorePick => new CorePick($p->id()->toRfc4122(), new PixelPoint($p->x(), $p->y()), $p->sigmaPx()), $byId)),
            array_map(static fn (KnownLength $l): CoreKnownLength => new CoreKnownLength(
                $l->id()->toRfc4122(), $l->a()->toRfc4122(), $l->b()->toRfc4122(), $l->length()->mm, $l->standing()->sigmaMm($l->length(), $scale), $l->along(), $l->heldOut(),
            ), $lengths),
            array_map(static fn (GridPick $g): CoreGridPick => new CoreGridPick($g->id()->toRfc4122(), $g->a()->toRfc4122(), $g->b()->toRfc4122(), $g->directionRad()), $grid),
        );
    }

    /**
     * Denominator of the drawing's scale, for the draughtsman's share of each figure's error.
     *
     * @param array<string, Pick> $picks
     * @param list<KnownLength> $lengths
     */
    private function scale(Page $page, array $picks, array $lengths): float
    {
        $longest = 0.0;
        $scale = FirstGuess::SCALE;
        foreach ($lengths as $length) {
            $a = $picks[$length->a()->toRfc4122()] ?? null;
            $b = $picks[$length->b()->toRfc4122()] ?? null;
            $px = null === $a || null === $b ? 0.0 : hypot($b->x() - $a->x(), $b->y() - $a->y());
            if ($px > $longest) {
                $longest = $px;
                $scale = $length->length()->mm / $px / FirstGuess::paperMmPerPixel($page);
            }
        }

        return $scale;
    }
}
