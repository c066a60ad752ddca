<?php

declare(strict_types=1);

use Plinth\Server\Kernel;

require_once dirname(__DIR__, 2).'/vendor/autoload_runtime.php';

/** @param array{APP_ENV: string, APP_DEBUG: string|bool} $context */
return static fn (array $context): Kernel => new Kernel($context['APP_ENV'], (bool) $context['APP_DEBUG']);
