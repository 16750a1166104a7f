<?php

declare(strict_types=1);

$finder = PhpCsFixer\Finder::create()->in([
    __DIR__.'/core', __DIR__.'/batch', __DIR__.'/src', __DIR__.'/demo', __DIR__.'/tests', __DIR__.'/migrations',
    __DIR__.'/public', __DIR__.'/bench',
])->name('*.php')->exclude('build');

return (new PhpCsFixer\Config())
    ->setRiskyAllowed(true)
    ->setRules([
        '@Symfony' => true,
        '@Symfony:risky' => true,
        'declare_strict_types' => true,
        'concat_space' => ['spacing' => 'none'],
        'phpdoc_to_comment' => false,
        'phpdoc_align' => false,
        'single_line_throw' => false,
        'ordered_imports' => true,
    ])
    ->setFinder($finder);
