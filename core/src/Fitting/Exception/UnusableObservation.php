<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

use Plinth\Core\Fitting\Pick;
use Plinth\Core\Units\Length;

final class UnusableObservation extends \DomainException implements FittingException
{
    /** Picks nearer than this carry no direction: two hand picks on one spot scatter by about as much. */
    public const APART_PX = 1.0;

    private function __construct(string $message, private readonly string $why, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function coincidentPicks(string $list, int $index, float $apartPx): self
    {
        return new self(
            \sprintf('Both picks lie on the same spot (%.2f px apart): pick the two ends at least %g px apart.', $apartPx, self::APART_PX),
            'coincident-picks',
            "$list/$index",
        );
    }

    public static function lengthNotPositive(int $index, float $mm): self
    {
        $message = \sprintf('A known length must be longer than zero, not %s.', Length::told($mm));

        return new self($message, 'length-not-positive', "lengths/$index");
    }

    public static function thickerThanLong(int $index, float $mm, float $allowanceMm): self
    {
        return new self(
            \sprintf(
                'With %s of wall taken off, nothing is left of %s: look at what the figure runs between and what was picked.',
                Length::told(-$allowanceMm),
                Length::told($mm),
            ),
            'length-not-positive',
            "lengths/$index",
        );
    }

    public static function acrossWithoutLine(int $index): self
    {
        return new self('A distance across needs a second pick on the line that it is measured from.', 'missing-pick', "lengths/$index");
    }

    public static function onTheLine(int $index): self
    {
        return new self('The third pick lies on the line of the first two: pick the other line.', 'collinear', "lengths/$index");
    }

    public static function samePlace(int $index): self
    {
        return new self(
            'Two control points name the same pick or the same place: each needs its own.',
            'coincident-picks',
            "points/$index",
        );
    }

    public static function notFourCorners(int $index): self
    {
        return new self('A rectangle needs four corners.', 'missing-pick', "rectangles/$index");
    }

    public static function sideNotPositive(int $index): self
    {
        return new self('Width and depth of a rectangle must be longer than zero.', 'length-not-positive', "rectangles/$index");
    }

    public static function cornersDoNotGoRound(int $index): self
    {
        return new self('The corners lie on one line or cross over: pick them in order round the room.', 'collinear', "rectangles/$index");
    }

    public static function badScale(): self
    {
        return new self('The stated scale must be above zero, such as 1:50.', 'bad-scale', 'scale');
    }

    public static function badSigma(int $index): self
    {
        return new self('The standard deviation of a length must be a number of millimetres, zero or more.', 'bad-sigma', "lengths/$index");
    }

    public static function badPick(Pick $pick): self
    {
        return new self(\sprintf('Pick %s needs finite coordinates and a standard deviation above zero.', $pick->id), 'bad-pick', '');
    }

    public static function missingPick(string $id): self
    {
        return new self(\sprintf('Pick %s is named but not given.', $id), 'missing-pick', '');
    }

    public function why(): string
    {
        return $this->why;
    }

    public function at(): string
    {
        return $this->at;
    }
}
