<?php

declare(strict_types=1);

namespace Plinth\Core\Fitting\Exception;

use Plinth\Core\Fitting\Model;

final class NothingToFit extends \DomainException implements FittingException
{
    public static function nothingSaysTheSize(): self
    {
        return new self('Nothing says how large the drawing is: give at least one known length, or two control points.');
    }

    public static function folds(): self
    {
        return new self(
            'By what is stated the picture would fold over on itself: look for corners picked in the wrong order, or a slip of ten.',
        );
    }

    public function why(): string
    {
        return 'under-determined';
    }

    public function at(): string
    {
        return '';
    }

    public static function tooLittleFor(Model $model): self
    {
        return new self(match ($model) {
            Model::Perspective => 'What is stated does not say yet how the camera stood: run lines with the grid at all four sides of the '
                .'drawing, or state a known rectangle.',
            default => "The statements do not determine a $model->value fit: give known lengths along both axes of the drawing"
                .(Model::Sheared === $model ? ', and one across them or two grid lines.' : '.'),
        });
    }
}
