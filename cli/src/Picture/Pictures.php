<?php

declare(strict_types=1);

namespace Plinth\Cli\Picture;

/** Where pictures come from. */
interface Pictures
{
    /** @return Picture|null null where the file is no picture that can be read */
    public function read(string $file): ?Picture;
}
