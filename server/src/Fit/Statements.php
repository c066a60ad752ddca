<?php

declare(strict_types=1);

namespace Plinth\Server\Fit;

use Doctrine\ORM\EntityManagerInterface;
use Plinth\Core\Fitting\DraftingError;
use Plinth\Core\Fitting\Exception\FittingException;
use Plinth\Core\Fitting\FitStart;
use Plinth\Core\Fitting\Fitter;
use Plinth\Core\Fitting\Observations;
use Plinth\Core\Fitting\PageFrame;
use Plinth\Core\Fitting\Pick as CorePick;
use Plinth\Core\Fitting\StatedScale;
use Plinth\Core\Geometry\PixelPoint;
use Plinth\Server\Change\ProjectRow;
use Plinth\Server\Source\Drawing;
use Plinth\Server\Source\Page;

/** All that is stated about one drawing, read for the core. Lengths that serve their whole page count for each of its drawings. */
final readonly class Statements
{
    public PageFrame $frame;
    public Observations $observations;

    /**
     * @param list<KnownLength> $lengths in the order of the observations
     */
    private function __construct(public Page $page, Observations $observations, public array $lengths)
    {
        $this->frame = new PageFrame($page->width(), $page->height(), $page->beforehand());
        $this->observations = $observations;
    }

    public static function of(EntityManagerInterface $entities, Drawing $drawing): self
    {
        // Deferred writes would be missed by the queries.
        $entities->flush();
        $page = $entities->find(
            Page::class,
            $drawing->beside($drawing->page())->criteria(),
        ) ?? throw new \LogicException('A drawing has a page.');
        $lengths = self::rows($entities, KnownLength::class, $drawing);
        $picks = self::rows($entities, Pick::class, $drawing);
        foreach ($entities->getRepository(Drawing::class)->findBy(['project' => $page->project(), 'page' => $page->id()]) as $other) {
            if (!$other->id()->equals($drawing->id())) {
                $shared = array_filter(
                    self::rows($entities, KnownLength::class, $other),
                    static fn (KnownLength $l): bool => $l->isOfWholePage(),
                );
                $lengths = [...$lengths, ...array_values($shared)];
                $picks = [] === $shared ? $picks : [...$picks, ...self::rows($entities, Pick::class, $other)];
            }
        }
        $scale = self::scale($page, $picks, $lengths);
        $needed = [];
        foreach ($lengths as $length) {
            foreach ($length->picks() as $id) {
                $needed[$id] = true;
            }
        }
        $picks = array_values(
            array_filter(
                $picks,
                static fn (Pick $p): bool => isset($needed[$p->id()->toRfc4122()]) || $p->drawing()->equals($drawing->id()),
            ),
        );
        $grid = array_map(static fn (GridPick $g) => $g->toCore(), self::rows($entities, GridPick::class, $drawing));
        $points = array_map(static fn (ControlPoint $p) => $p->toCore(), self::rows($entities, ControlPoint::class, $drawing));
        $rectangles = self::rows($entities, Rectangle::class, $drawing);
        $stated = null === $drawing->statedScale() ? null : new StatedScale(
            $drawing->statedScale() * self::paperMmPerPixel($page, $drawing),
        );
        $with = static fn (float $drafting): self => new self($page, new Observations(
            array_map(
                static fn (Pick $p): CorePick => new CorePick($p->id()->toRfc4122(), new PixelPoint($p->x(), $p->y()), $p->sigmaPx()),
                $picks,
            ),
            array_map(static fn (KnownLength $l) => $l->toCore($scale, $drafting), $lengths),
            $grid,
            $points,
            array_map(static fn (Rectangle $r) => $r->toCore($scale, $drafting), $rectangles),
            $stated,
            $drawing->keepsSize(),
        ), $lengths);
        $assumed = $with(1.0);
        try {
            $factor = DraftingError::factor(
                (new Fitter($drawing->shape()))->fit($assumed->observations, $assumed->frame, FitStart::unknown()),
            );
        } catch (FittingException) {
            return $assumed;
        }

        return $factor < 1.0 ? $with($factor) : $assumed;
    }

    /** mm of paper by what the user says of it, or by the scan's resolution */
    private static function paperMmPerPixel(Page $page, Drawing $drawing): float
    {
        return null === $drawing->statedPaper() ? FirstGuess::paperMmPerPixel($page) : $drawing->statedPaper() / max(
            $page->width(),
            $page->height(),
        );
    }

    /**
     * @template T of ProjectRow
     *
     * @param class-string<T> $class
     *
     * @return list<T>
     */
    private static function rows(EntityManagerInterface $entities, string $class, Drawing $drawing): array
    {
        return $entities->getRepository($class)->findBy(['project' => $drawing->project(), 'drawing' => $drawing->id()], ['id' => 'ASC']);
    }

    /**
     * Denominator of the drawing's scale, for the draughtsman's share of each figure's error.
     *
     * @param list<Pick> $picks
     * @param list<KnownLength> $lengths
     */
    private static function scale(Page $page, array $picks, array $lengths): float
    {
        $byId = [];
        foreach ($picks as $pick) {
            $byId[$pick->id()->toRfc4122()] = $pick;
        }
        $longest = 0.0;
        $scale = FirstGuess::SCALE;
        foreach ($lengths as $length) {
            $a = $byId[$length->a()->toRfc4122()] ?? null;
            $b = $byId[$length->b()->toRfc4122()] ?? null;
            $px = null === $a || null === $b ? 0.0 : hypot($b->x() - $a->x(), $b->y() - $a->y());
            if ($px > $longest) {
                $longest = $px;
                $scale = $length->length()->mm / $px / FirstGuess::paperMmPerPixel($page);
            }
        }

        return $scale;
    }
}
