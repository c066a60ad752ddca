<?php

declare(strict_types=1);

namespace Plinth\Core\Site\Exception;

use Plinth\Core\Fault\Fault;

/** Figures of a curve that do not go together; `at` names the one concerned. */
final class UnusableCurve extends \DomainException implements Fault
{
    private function __construct(string $message, private readonly string $at)
    {
        parent::__construct($message);
    }

    public static function noRadius(): self
    {
        return new self('The radius of a curve must be longer than zero.', 'radius');
    }

    public static function chordTooLong(float $chord, float $radius): self
    {
        return new self(
            \sprintf(
                'No circle of %.3f m radius has a chord of %.3f m: it is at most %.3f m. Is it the length along the curve?',
                $radius / 1000.0,
                $chord / 1000.0,
                2.0 * $radius / 1000.0,
            ),
            'length',
        );
    }

    public static function noPartOfACircle(float $degrees): self
    {
        return new self(
            \sprintf('A curve turns by more than 0° and less than 360°, not by %.2f°: look at its radius and its length.', $degrees),
            'length',
        );
    }

    public function why(): string
    {
        return 'unusable-curve';
    }

    public function at(): string
    {
        return $this->at;
    }
}
