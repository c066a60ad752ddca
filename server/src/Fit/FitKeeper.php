<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Exchange\FitDocument\FitWriter;
use Plinth\Core\Fitting\Advice;
use Plinth\Core\Fitting\Fit;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\GridPick as CoreGridPick;
use Plinth\Core\Fitting\KnownLength as CoreKnownLength;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick as CorePick;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Core\Geometry\PixelToMm;
use Plinth\Core\Geometry\Point;
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
    /** Without a resolution tag a page is taken for an A3 sheet (ISO 216), and every drawing for 1:100. */
    private const GUESSED_PAPER_MM = 420.0;
    private const GUESSED_SCALE = 100.0;
    /** Resolution tags outside this range are screen defaults or nonsense, not scans. */
    private const SCAN_RESOLUTION = [90.0, 2400.0];

    public function __construct(private EntityManagerInterface $entities)
    {
    }

    /** The mapping of a drawing about which nothing is stated: lower left corner of the page at the origin. */
    public static function guess(Page $page): PixelToMm
    {
        $frame = new PageFrame($page->width(), $page->height());
        $mmPerPixel = self::paperMmPerPixel($page) * self::GUESSED_SCALE;

        return PixelToMm::similar($mmPerPixel, 0.0, $frame->centre, new Point($frame->centre->x * $mmPerPixel, $frame->centre->y * $mmPerPixel));
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
        foreach (array_keys($drawings) as $id) {
            $drawing = $workspace->find(RowType::Drawing, Uuid::fromString($id));
            if ($drawing instanceof Drawing) {
                $this->refitDrawing($workspace, $drawing, $carryTracing);
            }
        }
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
        $fit = (new Fitter())->fit($observations, $frame, FitStart::from($row->pixelToMm(), $frame));

        return ['drawing' => $drawing->id()->toRfc4122()] + FitWriter::document($fit, Advice::on($fit, $observations, $frame)) + ['scale' => $fit->mmPerPixel / self::paperMmPerPixel($page)];
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
        $fit = (new Fitter())->fit($observations, $frame, $this->start($observations, $page, $old, $frame));
        $workspace->set($row, DrawingFit::valuesOf($fit->pixelToMm, !$fit->determined->scale, $fit->plusMinusMmPer10m, $fit->model), 'fit');
        if ($wasGuess || $carryTracing) {
            $this->carry($workspace, $drawing, $old, $fit);
        }
    }

    /** With the last length gone the scale goes back to the guess rather than staying at what nothing supports. */
    private function start(Observations $observations, Page $page, PixelToMm $old, PageFrame $frame): FitStart
    {
        $used = array_filter($observations->lengths, static fn (CoreKnownLength $l): bool => !$l->heldOut);
        if ([] !== $used) {
            return FitStart::from($old, $frame);
        }

        return FitStart::from(PixelToMm::similar(self::guess($page)->mmPerPixelAt($frame->centre), $old->turnRadAt($frame->centre), $frame->centre, $old->toMm($frame->centre)), $frame);
    }

    /** T_new ∘ T_old⁻¹ for what was traced over this drawing; thicknesses and widths stay as typed. */
    private function carry(Workspace $workspace, Drawing $drawing, PixelToMm $old, Fit $fit): void
    {
        $ratio = $fit->mmPerPixel / $old->mmPerPixelAt(new PixelPoint(0.0, 0.0));
        foreach ($workspace->findBy(Node::class, 'drawing', $drawing->id()) as $node) {
            $to = $fit->pixelToMm->toMm($old->toPixel($node->at()));
            $workspace->set($node, ['x' => $to->x, 'y' => $to->y], 'carry');
            foreach ($workspace->findBy(Wall::class, 'fromNode', $node->id()) as $wall) {
                foreach ($workspace->findBy(Opening::class, 'wall', $wall->id()) as $opening) {
                    $workspace->set($opening, ['offset' => $opening->offset() * $ratio], 'carry');
                }
            }
        }
        foreach ($workspace->findBy(Room::class, 'drawing', $drawing->id()) as $room) {
            $to = $fit->pixelToMm->toMm($old->toPixel($room->toCore()->anchor));
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
        $scale = self::GUESSED_SCALE;
        foreach ($lengths as $length) {
            $a = $picks[$length->a()->toRfc4122()] ?? null;
            $b = $picks[$length->b()->toRfc4122()] ?? null;
            $px = null === $a || null === $b ? 0.0 : hypot($b->x() - $a->x(), $b->y() - $a->y());
            if ($px > $longest) {
                $longest = $px;
                $scale = $length->length()->mm / $px / self::paperMmPerPixel($page);
            }
        }

        return $scale;
    }

    private static function paperMmPerPixel(Page $page): float
    {
        $resolution = $page->resolution();

        return null !== $resolution && $resolution >= self::SCAN_RESOLUTION[0] && $resolution <= self::SCAN_RESOLUTION[1]
            ? 25.4 / $resolution
            : self::GUESSED_PAPER_MM / max($page->width(), $page->height());
    }
}
