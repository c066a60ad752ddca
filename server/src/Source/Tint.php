<?php

declare(strict_types=1);

namespace Plinth\Server\Source;

/** Colours that the ink of a drawing can be shown in, so that two drawings over each other stay apart. */
enum Tint: string
{
    case Ink = 'ink';
    case Teal = 'teal';
    case Plum = 'plum';
    case Ochre = 'ochre';
    case Rust = 'rust';
}
