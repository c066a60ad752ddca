<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

final class UnusableStandOff extends \DomainException implements FittingException
{
    public static function behindTheCamera(float $mm, float $seenFromMm): self
    {
        return new self(
            \sprintf(
                'Something %.0f mm before the wall cannot be seen from %.0f mm away: give the distance of the camera from the wall.',
                $mm,
                $seenFromMm,
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
