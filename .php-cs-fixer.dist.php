<?php

declare(strict_types=1);

return (new PhpCsFixer\Config())
    ->setRiskyAllowed(true)
    ->setUnsupportedPhpVersionAllowed(true)
    ->setCacheFile(__DIR__.'/var/php-cs-fixer.cache')
    ->setRules([
        '@Symfony' => true,
        '@Symfony:risky' => true,
        'declare_strict_types' => true,
        'ordered_imports' => true,
        'no_unused_imports' => true,
        'phpdoc_align' => ['align' => 'left'],
        'phpdoc_to_comment' => false,
        'phpdoc_summary' => false,
        'phpdoc_separation' => false,
        'phpdoc_annotation_without_dot' => false,
        'concat_space' => ['spacing' => 'none'],
        'global_namespace_import' => ['import_classes' => false, 'import_functions' => false, 'import_constants' => false],
        'fully_qualified_strict_types' => ['import_symbols' => true],
        'native_function_invocation' => ['include' => ['@compiler_optimized'], 'scope' => 'namespaced', 'strict' => false],
        'single_line_throw' => false,
        'yoda_style' => true,
    ])
    ->setFinder(PhpCsFixer\Finder::create()->in([__DIR__.'/cli', __DIR__.'/core', __DIR__.'/server'])->exclude('migrations')->notPath('config/reference.php')->append([__DIR__.'/bin/plinth', __DIR__.'/demo/draw']));
