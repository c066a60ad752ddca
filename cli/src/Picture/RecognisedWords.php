<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

use Plinth\Core\Ink\Page\GreyRaster;
use Plinth\Server\Source\Reading\Recogniser;

/** Recognised by the text recogniser in the sandbox. */
final readonly class RecognisedWords implements Words
{
    public function __construct(private Sandboxed $sandboxed)
    {
    }

    public function in(GreyRaster $picture): array
    {
        $work = $this->sandboxed->folder();
        try {
            return Recogniser::read($this->sandboxed->tool(), $work, $picture, static function (): void {});
        } finally {
            $this->sandboxed->remove($work);
        }
    }
}
