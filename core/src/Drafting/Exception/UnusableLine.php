<?php

declare(strict_types=1);

namespace Plinth\Core\Drafting\Exception;

use Plinth\Core\Fault\Fault;

/** A line that cannot be drawn; `at` names the corner concerned, such as `corners/2`. */
final class UnusableLine extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function tooShort(): self
    {
        return new self('A line runs from one place to another: give it two or more.', 'corners');
    }

    public static function twoOnOnePlace(int $corner): self
    {
        return new self(
            \sprintf('Corner %d of the line lies where the next one does: take one of the two back.', $corner + 1),
            "corners/$corner",
        );
    }

    public static function enclosesNothing(): self
    {
        return new self('The shape encloses nothing: give it a third corner or an arc.', 'corners');
    }

    public static function crossesItself(int $one, int $other): self
    {
        return new self(
            \sprintf('Stretch %d of the shape crosses stretch %d: take the last corners back.', $one + 1, $other + 1),
            "corners/$other",
        );
    }

    public function why(): string
    {
        return 'unusable-line';
    }

    public function at(): string
    {
        return $this->at;
    }
}
