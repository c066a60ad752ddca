<?php

declare(strict_types=1);

namespace Plinth\Core\Stairs\Exception;

use Plinth\Core\Fault\Fault;
use Plinth\Core\Units\Length;

/** A stair that cannot stand as it is drawn: refused in words that say what would mend it. */
final class UnbuildableStair extends \RuntimeException implements Fault
{
    private function __construct(private readonly string $why, string $message)
    {
        parent::__construct($message);
    }

    public static function line(): self
    {
        return new self('stair-line', 'A stair needs a walking line of two points or more that lie apart, or treads that are traced.');
    }

    public static function kink(): self
    {
        return new self('stair-kink', 'A curved part of a walking line goes on straight at its ends: move a point so that it does.');
    }

    public static function sharp(): self
    {
        return new self('stair-sharp', 'The walking line turns back on itself: between two flights it runs across in a part of its own.');
    }

    public static function tight(float $radius, float $width): self
    {
        return new self('stair-tight', \sprintf(
            'A stair %s wide does not go round a walking line of %s radius: make it %s wide at most.',
            Length::told($width),
            Length::told($radius),
            Length::told(2.0 * $radius),
        ));
    }

    /** @param float $missing mm */
    public static function short(float $missing): self
    {
        return new self('stair-short', \sprintf(
            'Between two corners of the walking line %s are missing for what lies at each: make it longer or the stair narrower.',
            Length::told($missing),
        ));
    }

    /** @param int $least risers */
    public static function few(int $least): self
    {
        return new self('stair-few', \sprintf('This line has corners and flights that take %d risers at least: type more.', $least));
    }

    public static function overlap(): self
    {
        return new self('stair-overlap', 'Treads of this stair would lie on each other: make it narrower, or its flights further apart.');
    }

    /** @param int $tread from 1 */
    public static function tread(int $tread): self
    {
        return new self('stair-tread', \sprintf('Tread %d encloses nothing or crosses itself: trace it again.', $tread));
    }

    public function why(): string
    {
        return $this->why;
    }

    public function at(): string
    {
        return '';
    }
}
