<?php

declare(strict_types=1);

namespace Plinth\Core\Site\Exception;

use Plinth\Core\Fault\Fault;

/** Places of a map that no plan can lie on. */
final class UnusableMapPoints extends \DomainException implements Fault
{
    private function __construct(private readonly string $why, string $message)
    {
        parent::__construct($message);
    }

    public static function oneOverAnother(): self
    {
        return new self(
            'one-map-point',
            'These are one place of the plan: give two that lie apart, so that it is known which way it lies.',
        );
    }

    public static function outOfScale(float $scale): self
    {
        return new self('map-points-apart', \sprintf(
            'On the map these lie %.3f times as far apart as in the plan: '
                .'look whether east and north were taken for each other, or feet for metres.',
            $scale,
        ));
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
