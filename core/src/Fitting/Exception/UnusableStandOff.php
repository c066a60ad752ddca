<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

use Plinth\Core\Units\Length;

final class UnusableStandOff extends \DomainException implements FittingException
{
    public static function behindTheCamera(float $mm, float $seenFromMm): self
    {
        return new self(
            \sprintf(
                'Something %s before the wall cannot be seen from %s away: give the distance of the camera from the wall.',
                Length::told($mm),
                Length::told($seenFromMm),
            ),
        );
    }

    public function why(): string
    {
        return 'unusable-stand-off';
    }

    public function at(): string
    {
        return 'seenFrom';
    }
}
