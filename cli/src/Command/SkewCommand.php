<?php

declare(strict_types=1);

namespace Plinth\Cli\Command;

use Plinth\Cli\Picture\Picture;
use Plinth\Core\Ink\Pages\Skew;
use Symfony\Component\Console\Attribute\AsCommand;
use Symfony\Component\Console\Input\InputInterface;

#[AsCommand('skew', 'How far a drawing is turned on its page', help: <<<'TEXT'
    Answers {"degrees", "confidence"}: the turn of the drawing’s own x axis, counter-clockwise as seen, modulo 90°, in (−45, 45].
    `degrees` is null where the ink shows no direction.
    TEXT)]
final class SkewCommand extends PictureCommand
{
    protected function answer(Picture $picture, InputInterface $input): array
    {
        $skew = Skew::of($picture->raster);

        return ['degrees' => $skew?->degrees, 'confidence' => $skew->confidence ?? 0.0];
    }
}
